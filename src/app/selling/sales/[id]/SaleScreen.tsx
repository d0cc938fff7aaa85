'use client';
import { useState } from 'react';
import styled from 'styled-components';
import { HANDOVERS, type Handover, nextStages, SALE_STAGES, type SaleStage } from '@/core/selling';
import { Button } from '@/ui/controls/Button';
import { Choice, Field } from '@/ui/controls/Field';
import { Form, textOf } from '@/ui/controls/Form';
import { Actions } from '@/ui/overlay/Dialog';
import { Fields, Page, Section } from '@/ui/text/Sheet';
import type { Statement } from '@/usecases/selling/statement';
import { useTitle } from '../../../frame/PageTitle';
import { AskDialog, type Asking } from './AskDialog';
import { SaleHead } from './SaleHead';
import { StatementPart } from './StatementPart';
import { STEP_ACTS } from './stepWords';
import { TransferCode } from './TransferCode';
import { type SaleSteps, useSaleSteps } from './useSaleSteps';

const NoPrint = styled.div`display: contents; @media print { display: none; }`;

const isForward = (to: SaleStage) => (SALE_STAGES as readonly string[]).includes(to);

/** A sale from the agreement to the money: whose turn it is, what can be done, and its statement. */
export function SaleScreen({ statement, hasLink }: { statement: Statement; hasLink: boolean }) {
  const { sale } = statement;
  const [asking, setAsking] = useState<Asking>(null);
  const steps = useSaleSteps(sale.id);
  useTitle('Selling', `sale of ${sale.unicode}`);
  return (
    <Page>
      <NoPrint>
        <SaleHead statement={statement} />
        {sale.stage === 'buyer known' && (
          <HandOverPart sale={sale} steps={steps} onByLink={hasLink ? () => setAsking('by link') : null} />
        )}
        {sale.hasCode && sale.stage === 'handed over' && <TransferCode saleId={sale.id} />}
        <ByHandPart sale={sale} steps={steps} onAsk={setAsking} />
      </NoPrint>
      <StatementPart statement={statement} />
      <AskDialog sale={sale} asking={asking} steps={steps} onClose={() => setAsking(null)} />
    </Page>
  );
}

interface PartProps {
  readonly sale: Statement['sale'];
  readonly steps: SaleSteps;
}

/** The name goes to the buyer: over the link, or at the registrar by hand. */
function HandOverPart({ sale, steps, onByLink }: PartProps & { onByLink: (() => void) | null }) {
  return (
    <Section aria-label="Hand the name over">
      <h2>Hand the name over</h2>
      <p>
        {sale.handover === 'push'
          ? `Push it to the account ${sale.buyerAccount} at ${sale.account}.`
          : `Transfer it to ${sale.buyerAccount}: the lock comes off, and the buyer gets a code of its own.`}
        {sale.handingOver && ' The registrar was asked and has not answered: it is looked after by itself.'}
      </p>
      <Actions>
        {onByLink && (
          <Button data-kind="primary" isDisabled={steps.isBusy} onPress={onByLink}>
            {sale.handover === 'push' ? 'Push by link…' : 'Unlock and give the code by link…'}
          </Button>
        )}
        <Button isDisabled={steps.isBusy} onPress={() => void steps.handOver(true)}>
          I have done it at {sale.account}
        </Button>
      </Actions>
    </Section>
  );
}

/** What happened elsewhere is taken down here; what cannot be taken back is asked first. */
function ByHandPart({ sale, steps, onAsk }: PartProps & { onAsk: (to: SaleStage) => void }) {
  const next = nextStages(sale.stage).filter((to) => to !== 'handed over');
  if (next.length === 0) return null;
  const exits = next.filter((to) => !isForward(to));
  return (
    <Section aria-label="Take down a step by hand">
      <h2>What happens next</h2>
      {next.includes('buyer known') && <BuyerKnown sale={sale} steps={steps} />}
      <Actions>
        {next.filter(isForward).map(
          (to) =>
            to !== 'buyer known' && (
              <Button
                key={to}
                data-kind="primary"
                isDisabled={steps.isBusy}
                onPress={() => (to === 'done' ? onAsk(to) : void steps.step({ to }))}
              >
                {STEP_ACTS[to]}
                {to === 'done' && '…'}
              </Button>
            ),
        )}
      </Actions>
      {exits.length > 0 && (
        <p className="soft">
          Did it go wrong?{' '}
          {exits.map((to) => (
            <Button key={to} data-kind="plain" isDisabled={steps.isBusy} onPress={() => onAsk(to)}>
              {STEP_ACTS[to]}…
            </Button>
          ))}
        </p>
      )}
    </Section>
  );
}

/** Where the buyer wants the name: an account at the same registrar, or another registrar. */
function BuyerKnown({ sale, steps }: PartProps) {
  const [handover, setHandover] = useState<Handover>('push');
  return (
    <Form
      aria-label="Where the name goes"
      refused={steps.refused}
      onSubmit={async (form) =>
        void (await steps.step({ to: 'buyer known', handover, buyerAccount: textOf(form, 'buyerAccount') }))
      }
    >
      <Fields>
        <Choice
          label="How it goes to the buyer"
          value={handover}
          onChange={setHandover}
          options={HANDOVERS.map((one) => ({
            value: one,
            text: one === 'push' ? 'push inside the registrar' : 'transfer to another registrar',
          }))}
        />
        <Field
          name="buyerAccount"
          label={handover === 'push' ? `Buyer’s account at ${sale.account}` : 'The buyer’s registrar'}
        />
      </Fields>
      <Actions>
        <Button type="submit" data-kind="primary" isDisabled={steps.isBusy}>
          {STEP_ACTS['buyer known']}
        </Button>
      </Actions>
    </Form>
  );
}
