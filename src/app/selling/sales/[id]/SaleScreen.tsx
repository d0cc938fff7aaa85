'use client';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import styled from 'styled-components';
import { isRefusal, type Refusal } from '@/core/refusal';
import { HANDOVERS, type Handover, nextStages, SALE_STAGES, type SaleStage, turnAt } from '@/core/selling';
import { Button } from '@/ui/controls/Button';
import { Choice, Field } from '@/ui/controls/Field';
import { Actions, Dialog } from '@/ui/overlay/Dialog';
import { report } from '@/ui/overlay/Toasts';
import { formatAmount } from '@/ui/text/figures';
import { Fields, Notice, Page, Section } from '@/ui/text/Sheet';
import { STAGE_WORDS } from '@/ui/text/sellingWords';
import { dayWords, hourWords } from '@/ui/text/words';
import type { Statement } from '@/usecases/selling/statement';
import { useTitle } from '../../../frame/Frame';
import { useLedger } from '../../../frame/LedgerProvider';
import { handOverAction, stepSaleAction } from '../../actions';
import { StatementPart } from './StatementPart';
import { TransferCode } from './TransferCode';

const Way = styled.ol`
  display: grid;
  grid-template-columns: repeat(6, minmax(0, 1fr));
  border-top: 3px solid var(--rule);
  & li { position: relative; padding: 10px 8px 0 0; color: var(--ink-soft); }
  & li::before { content: ''; position: absolute; top: -8px; left: 0; width: 11px; height: 11px; border: 2px solid var(--ink-soft); border-radius: 50%; background: var(--sheet); }
  & li[data-done='true'] { color: var(--ink); }
  & li[data-done='true']::before { background: var(--bearing); border-color: var(--bearing); }
  & li[aria-current='step'] { font-weight: 600; color: var(--ink); }
  & small { display: block; font-weight: 400; }
  @media (max-width: 640px) { grid-template-columns: minmax(0, 1fr); border: 0; & li { padding: 2px 0 6px 20px; } & li::before { top: 5px; } }
  @media print { display: none; }
`;

const NoPrint = styled.div`display: contents; @media print { display: none; }`;

const STEP_WORDS: Readonly<Record<SaleStage, string>> = {
  agreed: 'Agreed',
  'money held': 'The money is held',
  'buyer known': 'The buyer’s account is known',
  'handed over': 'Handed over',
  arrived: 'It has arrived',
  done: 'The money is released',
  'not paid': 'Not paid',
  refused: 'Refused',
  dispute: 'In dispute',
};

const TURN_WORDS = { buyer: 'the buyer', owner: 'you', marketplace: 'the marketplace', nobody: 'nobody' } as const;

/** A sale from the agreement to the money: whose turn it is, what can be done, and its statement. */
export function SaleScreen({ statement, hasLink }: { statement: Statement; hasLink: boolean }) {
  const router = useRouter();
  const { reload } = useLedger();
  const { sale } = statement;
  const [asking, setAsking] = useState<SaleStage | 'by link' | null>(null);
  const [busy, setBusy] = useState(false);
  const [handover, setHandover] = useState<Handover>('push');
  const [buyerAccount, setBuyerAccount] = useState('');
  const [note, setNote] = useState('');
  const [refused, setRefused] = useState<Refusal | null>(null);
  useTitle('Selling', `sale of ${sale.unicode}`);

  const answered = async (answer: true | Refusal, words: string) => {
    setBusy(false);
    setRefused(isRefusal(answer) ? answer : null);
    if (isRefusal(answer)) {
      if (!answer.field) report({ text: answer.message, problem: true });
      return;
    }
    setAsking(null);
    report({ text: words });
    await reload();
    router.refresh();
  };
  const step = async (to: SaleStage) => {
    setBusy(true);
    const more = to === 'buyer known' ? { handover, buyerAccount } : {};
    await answered(await stepSaleAction({ saleId: sale.id, to, note, ...more }), `${STEP_WORDS[to]}.`);
  };
  const hand = async (byHand: boolean) => {
    setBusy(true);
    await answered(await handOverAction({ saleId: sale.id, byHand }), 'Handed over.');
  };
  const next = nextStages(sale.stage);
  const forward = next.filter((to) => (SALE_STAGES as readonly string[]).includes(to) && to !== 'handed over');
  const out = next.filter((to) => !(SALE_STAGES as readonly string[]).includes(to));
  return (
    <Page>
      <NoPrint>
        <SaleHead statement={statement} />
        {sale.stage === 'buyer known' && (
          <Section aria-label="Hand the name over">
            <h2>Hand the name over</h2>
            <p>
              {sale.handover === 'push'
                ? `Push it to the account ${sale.buyerAccount} at ${sale.account}.`
                : `Transfer it to ${sale.buyerAccount}: the lock comes off, and the buyer gets a code of its own.`}
              {sale.handingOver && ' The registrar was asked and has not answered: it is looked after by itself.'}
            </p>
            <Actions>
              {hasLink && (
                <Button data-kind="primary" isDisabled={busy} onPress={() => setAsking('by link')}>
                  {sale.handover === 'push' ? 'Push by link…' : 'Unlock and give the code by link…'}
                </Button>
              )}
              <Button isDisabled={busy} onPress={() => void hand(true)}>
                I have done it at {sale.account}
              </Button>
            </Actions>
          </Section>
        )}
        {sale.hasCode && sale.stage === 'handed over' && <TransferCode saleId={sale.id} />}
        {(forward.length > 0 || out.length > 0) && (
          <Section aria-label="Take down a step by hand">
            <h2>By hand</h2>
            {forward.includes('buyer known') && (
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
                  label={handover === 'push' ? `Buyer’s account at ${sale.account}` : 'The buyer’s registrar'}
                  value={buyerAccount}
                  onChange={setBuyerAccount}
                  problem={refused?.field === 'buyerAccount' ? refused.message : null}
                />
              </Fields>
            )}
            <Actions>
              {forward.map((to) => (
                <Button key={to} isDisabled={busy} onPress={() => (to === 'done' ? setAsking(to) : void step(to))}>
                  {STEP_WORDS[to]}
                  {to === 'done' && '…'}
                </Button>
              ))}
              {out.map((to) => (
                <Button key={to} data-kind="caution" isDisabled={busy} onPress={() => setAsking(to)}>
                  {STEP_WORDS[to]}…
                </Button>
              ))}
            </Actions>
          </Section>
        )}
      </NoPrint>
      <StatementPart statement={statement} />
      <AskDialog
        sale={sale}
        asking={asking}
        busy={busy}
        note={note}
        onNote={setNote}
        onHand={() => void hand(false)}
        onStep={(to) => void step(to)}
        onClose={() => setAsking(null)}
      />
    </Page>
  );
}

type Sale = Statement['sale'];

const priceWords = ({ priceMinor, currency }: Sale) => formatAmount({ minor: priceMinor, currency }, true);

/** What is sold to whom, how far it has come, and whose turn it is. */
function SaleHead({ statement: { sale, steps } }: { statement: Statement }) {
  const { style } = useLedger();
  const price = priceWords(sale);
  const turn = turnAt(sale.stage);
  const place = SALE_STAGES.indexOf(sale.stage as (typeof SALE_STAGES)[number]);
  return (
    <Section>
      <Actions>
        <h2>
          <span className="name">{sale.unicode}</span> to {sale.buyer} for {price}
        </h2>
        <Link href={`/selling/names/${encodeURIComponent(sale.ascii)}`}>all of this name</Link>
      </Actions>
      <Way aria-label="Progress of this sale">
        {SALE_STAGES.map((stage, i) => {
          const taken = steps.findLast((one) => one.stage === stage);
          return (
            <li key={stage} data-done={i <= place} aria-current={i === place ? 'step' : undefined}>
              {STEP_WORDS[stage]}
              {taken && (
                <small>
                  {dayWords(taken.at, style)}, {taken.origin}
                </small>
              )}
            </li>
          );
        })}
      </Way>
      {place < 0 && (
        <Notice data-kind="caution">
          <p>
            {STEP_WORDS[sale.stage]} since {dayWords(sale.stageSince, style)}
            {sale.note || steps.at(-1)?.note ? `: ${sale.note || steps.at(-1)?.note}` : ''}.
          </p>
        </Notice>
      )}
      {turn !== 'nobody' && (
        <p>
          <b>It is {TURN_WORDS[turn]}</b>
          {turn === 'owner' ? '' : ' who acts'}: {STAGE_WORDS[sale.stage]}
          {sale.dueAt !== null && `, by ${hourWords(sale.dueAt, style)}`}.
          {sale.toTell !== null && ' The marketplace has still to be told.'}
        </p>
      )}
    </Section>
  );
}

interface AskDialogProps {
  readonly sale: Sale;
  readonly asking: SaleStage | 'by link' | null;
  readonly busy: boolean;
  readonly note: string;
  readonly onNote: (note: string) => void;
  readonly onHand: () => void;
  readonly onStep: (to: SaleStage) => void;
  readonly onClose: () => void;
}

/** The one question before something that cannot be taken back. */
function AskDialog({ sale, asking, busy, note, onNote, onHand, onStep, onClose }: AskDialogProps) {
  const { style } = useLedger();
  const price = priceWords(sale);
  return (
    <Dialog
      title={
        asking === 'by link'
          ? 'Hand it over now?'
          : asking === 'done'
            ? 'Close this sale?'
            : `${asking ? STEP_WORDS[asking] : ''}?`
      }
      isOpen={asking !== null}
      onClose={onClose}
    >
      {asking === 'by link' ? (
        <>
          <p>
            <span className="name">{sale.unicode}</span> goes to {sale.buyer},{' '}
            {sale.handover === 'push' ? 'account' : 'registrar'} <b>{sale.buyerAccount}</b>, for {price}. This cannot be
            taken back.
          </p>
          <p className="soft">
            If you do nothing{sale.dueAt !== null && `, it is overdue from ${dayWords(sale.dueAt, style)}, and`} the
            buyer may ask for the money back.
          </p>
          <Actions>
            <Button data-kind="primary" isDisabled={busy} onPress={onHand}>
              {busy ? 'Asking the registrar…' : 'Hand it over'}
            </Button>
            <Button onPress={onClose}>Not yet</Button>
          </Actions>
        </>
      ) : asking !== null ? (
        <>
          <p>
            {asking === 'done'
              ? `${price} is booked as received, the marketplace’s part as spent. The name leaves the ledger and stays in the books.`
              : asking === 'dispute'
                ? 'The sale waits until the dispute is settled. The name stays promised.'
                : 'The sale ends here, and the name may be sold again. Offers that waited are open.'}
          </p>
          <Field label="What happened" value={note} onChange={onNote} />
          <Actions>
            <Button
              data-kind={asking === 'done' ? 'primary' : 'caution'}
              isDisabled={busy}
              onPress={() => onStep(asking)}
            >
              {STEP_WORDS[asking]}
            </Button>
            <Button onPress={onClose}>Not yet</Button>
          </Actions>
        </>
      ) : null}
    </Dialog>
  );
}
