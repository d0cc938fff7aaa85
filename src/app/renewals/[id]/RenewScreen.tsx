'use client';
import { useRouter } from 'next/navigation';
import { useRef, useState } from 'react';
import { isRefusal } from '@/core/refusal';
import { Button, ButtonLink } from '@/ui/controls/Button';
import { Field } from '@/ui/controls/Field';
import { Actions } from '@/ui/overlay/Dialog';
import { report } from '@/ui/overlay/Toasts';
import { Fields, Page, Section } from '@/ui/text/Sheet';
import { amountsWords, namesWords } from '@/ui/text/words';
import type { OpenRenewal } from '@/usecases/renewals/renew';
import { useTitle } from '../../frame/Frame';
import { changeRenewalAction, moveRenewalAction } from '../actions';
import { ConfirmForm } from './ConfirmForm';
import { QuoteTable } from './QuoteTable';
import { StepsAtRegistrars } from './StepsAtRegistrars';

/** Renewing by hand: terms and cost, what to do at each registrar, then what really happened. */
export function RenewScreen({ first }: { first: OpenRenewal }) {
  const router = useRouter();
  const [open, setOpen] = useState(first);
  const [code, setCode] = useState(first.renewal.promotion?.code ?? '');
  const [percent, setPercent] = useState(first.renewal.promotion ? String(first.renewal.promotion.percent) : '');
  const [tax, setTax] = useState(first.renewal.taxPercent > 0 ? String(first.renewal.taxPercent) : '');
  const [problem, setProblem] = useState<string | null>(null);
  const newest = useRef(0);
  const { renewal, quote } = open;
  const settled = renewal.status === 'confirmed' || renewal.status === 'dropped';
  useTitle('Renew by hand', namesWords(renewal.items.length));

  const change = async (
    terms: ReadonlyMap<number, number>,
    promotion: { code: string; percent: string },
    taxText: string,
  ) => {
    newest.current += 1;
    const mine = newest.current;
    const items = quote.items.map(({ nameId, years }) => ({ nameId, years: terms.get(nameId) ?? years }));
    const off =
      promotion.percent.trim() === ''
        ? undefined
        : { code: promotion.code.trim() || 'promotion', percent: Number(promotion.percent) };
    const answer = await changeRenewalAction(renewal.id, {
      items,
      promotion: off,
      taxPercent: taxText.trim() === '' ? 0 : Number(taxText),
    });
    if (mine !== newest.current) return;
    setProblem(isRefusal(answer) ? answer.message : null);
    if (!isRefusal(answer)) setOpen(answer);
  };

  const asked = async () => {
    const refused = await moveRenewalAction(renewal.id, 'asked');
    if (refused) report({ text: refused.message, problem: true });
    else setOpen({ ...open, renewal: { ...renewal, status: 'asked' } });
  };

  const drop = async () => {
    const refused = await moveRenewalAction(renewal.id, 'dropped');
    if (refused) report({ text: refused.message, problem: true });
    else router.push('/ledger');
  };

  if (settled) {
    return (
      <Page>
        <Section>
          <h2>
            {renewal.status === 'dropped'
              ? 'Dropped. Nothing was renewed.'
              : renewal.undone
                ? 'Confirmed, then taken back in the books.'
                : 'Confirmed.'}
          </h2>
          <Actions>
            <ButtonLink href="/ledger" data-kind="primary">
              To the ledger
            </ButtonLink>
          </Actions>
        </Section>
      </Page>
    );
  }
  const possible = quote.items.filter((item) => item.refusal === null).length;
  return (
    <Page>
      <Section>
        <QuoteTable
          quote={quote}
          locked={renewal.status === 'asked'}
          onYears={(nameId, years) => void change(new Map([[nameId, years]]), { code, percent }, tax)}
        />
        {renewal.status === 'planned' && (
          <Fields>
            <Field
              label="Promotion code"
              value={code}
              onChange={setCode}
              onBlur={() => void change(new Map(), { code, percent }, tax)}
            />
            <Field
              label="Promotion, percent off"
              value={percent}
              onChange={setPercent}
              inputMode="decimal"
              onBlur={() => void change(new Map(), { code, percent }, tax)}
            />
            <Field
              label="Tax, percent"
              value={tax}
              onChange={setTax}
              inputMode="decimal"
              onBlur={() => void change(new Map(), { code, percent }, tax)}
            />
          </Fields>
        )}
        {problem && (
          <p className="caution" role="alert">
            {problem}
          </p>
        )}
      </Section>
      {renewal.status === 'planned' ? (
        <Actions>
          <Button data-kind="primary" isDisabled={possible === 0} onPress={() => void asked()}>
            Next: what to do, {amountsWords(quote.totals)}
          </Button>
          <Button onPress={() => void drop()}>Drop</Button>
        </Actions>
      ) : (
        <>
          <StepsAtRegistrars quote={quote} />
          <ConfirmForm open={open} onDrop={() => void drop()} />
        </>
      )}
    </Page>
  );
}
