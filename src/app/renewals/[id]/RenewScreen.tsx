'use client';
import { useRouter } from 'next/navigation';
import { useRef, useState } from 'react';
import { readPercent, sumByCurrency } from '@/core/money';
import { isRefusal } from '@/core/refusal';
import { Button } from '@/ui/controls/Button';
import { Field } from '@/ui/controls/Field';
import { Actions } from '@/ui/overlay/Dialog';
import { report } from '@/ui/overlay/Toasts';
import { numberText } from '@/ui/text/figures';
import { Fields, Notice, Page, Section } from '@/ui/text/Sheet';
import { amountsWords, namesWords } from '@/ui/text/words';
import type { OpenRenewal } from '@/usecases/orders/plan';
import type { QuotedItem, RenewalQuote } from '@/usecases/orders/quote';
import type { RunProgress } from '@/usecases/orders/start';
import { useTitle } from '../../frame/Frame';
import { changeRenewalAction, moveRenewalAction, payRunByAction } from '../actions';
import { ConfirmForm } from './ConfirmForm';
import { LinkedRun } from './LinkedRun';
import { LongerTerm } from './LongerTerm';
import { QuoteTable } from './QuoteTable';
import type { NamedReport } from './ReportForm';
import { RestoreTable } from './RestoreTable';
import { SettledRun } from './SettledRun';
import { StepsAtRegistrars } from './StepsAtRegistrars';

/** Renewing: terms and cost; over a link where the account has one, else what to do there and what really happened. */
export function RenewScreen({
  first,
  progress: firstProgress,
  reports,
}: {
  first: OpenRenewal;
  progress: RunProgress;
  /** The reports of a restore. */
  reports: readonly NamedReport[];
}) {
  const router = useRouter();
  const [open, setOpen] = useState(first);
  const [progress, setProgress] = useState(firstProgress);
  const [code, setCode] = useState(first.renewal.promotion?.code ?? '');
  const [percent, setPercent] = useState(
    first.renewal.promotion?.percent == null ? '' : numberText(first.renewal.promotion.percent),
  );
  const [tax, setTax] = useState(first.renewal.taxPercent === null ? '' : numberText(first.renewal.taxPercent));
  const [comparing, setComparing] = useState(false);
  const [problem, setProblem] = useState<string | null>(null);
  const [unread, setUnread] = useState<{ percent?: string; tax?: string }>({});
  const newest = useRef(0);
  const { renewal, quote } = open;
  const settled = renewal.status === 'confirmed' || renewal.status === 'dropped';
  const restoring = renewal.action === 'restore';
  useTitle(restoring ? 'Restore' : 'Renew', namesWords(renewal.items.length));
  const linked = new Set(progress.linkedAccounts);
  const isLinked = (item: { readonly accountId: number }) => linked.has(item.accountId);
  const byHand = partOf(quote, (item) => !isLinked(item));
  const byLink = partOf(quote, isLinked);

  const change = async (
    terms: ReadonlyMap<number, number>,
    promotion: { code: string; percent: string },
    taxText: string,
  ) => {
    newest.current += 1;
    const mine = newest.current;
    const items = quote.items.map(({ nameId, years }) => ({ nameId, years: terms.get(nameId) ?? years }));
    const off = promotion.percent.trim() === '' ? null : readPercent(promotion.percent);
    const added = taxText.trim() === '' ? null : readPercent(taxText);
    setUnread({
      ...(isRefusal(off) ? { percent: off.message } : {}),
      ...(isRefusal(added) ? { tax: added.message } : {}),
    });
    if (isRefusal(off) || isRefusal(added)) return;
    const named = promotion.code.trim();
    const answer = await changeRenewalAction(renewal.id, {
      items,
      ...(named === '' && off === null
        ? {}
        : { promotion: { ...(named === '' ? {} : { code: named }), ...(off === null ? {} : { percent: off }) } }),
      ...(added === null ? {} : { taxPercent: added }),
    });
    if (mine !== newest.current) return;
    setProblem(isRefusal(answer) ? answer.message : null);
    if (!isRefusal(answer)) setOpen(answer);
  };

  const payBy = async (accountId: number, paymentMethod: string | null) => {
    const answer = await payRunByAction({
      id: renewal.id,
      accountId,
      ...(paymentMethod === null ? {} : { paymentMethod }),
    });
    setProblem(isRefusal(answer) ? answer.message : null);
    if (!isRefusal(answer)) setOpen(answer);
  };

  const requested = async () => {
    const refused = await moveRenewalAction(renewal.id, 'requested');
    if (refused) report({ text: refused.message, problem: true });
    else setOpen({ ...open, renewal: { ...renewal, status: 'requested' } });
  };

  const drop = async () => {
    const refused = await moveRenewalAction(renewal.id, 'dropped');
    if (refused) report({ text: refused.message, problem: true });
    else router.push('/ledger');
  };

  if (settled) return <SettledRun renewal={renewal} />;
  const begun = progress.items.some((item) => !['planned', 'refused'].includes(item.state));
  const handOpen =
    byHand.items.length > 0 &&
    renewal.items.some(
      (item) =>
        item.state === 'planned' && item.done === null && byHand.items.some(({ nameId }) => nameId === item.nameId),
    );
  return (
    <Page>
      <Section>
        {!begun && restoring && (
          <RestoreTable
            quote={quote}
            payBy={renewal.payBy}
            onPayBy={(accountId, paymentMethod) => void payBy(accountId, paymentMethod)}
          />
        )}
        {!begun && !restoring && quote.items.some((item) => item.phase === 'late') && (
          <Notice>
            Past its term: a transfer within the late window can drop the year that is paid here. If a name is to move,
            let it arrive first and renew it there.
          </Notice>
        )}
        {!begun && !restoring && (
          <QuoteTable
            quote={quote}
            payBy={renewal.payBy}
            onPayBy={(accountId, paymentMethod) => void payBy(accountId, paymentMethod)}
            locked={renewal.status === 'requested'}
            onYears={(nameId, years) => void change(new Map([[nameId, years]]), { code, percent }, tax)}
          />
        )}
        {renewal.status === 'planned' && !begun && !restoring && (
          <Fields>
            <Field
              label="Promotion code"
              value={code}
              onChange={setCode}
              hint="told to the registrar; its price counts"
              onBlur={() => void change(new Map(), { code, percent }, tax)}
            />
            <Field
              label="Promotion, percent off"
              value={percent}
              onChange={setPercent}
              inputMode="decimal"
              problem={unread.percent ?? null}
              onBlur={() => void change(new Map(), { code, percent }, tax)}
            />
            <Field
              label="Tax, percent"
              value={tax}
              onChange={setTax}
              inputMode="decimal"
              hint="empty: as each account adds it"
              problem={unread.tax ?? null}
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
      {renewal.status === 'planned' && !begun && !restoring && (
        <details onToggle={(event) => setComparing(event.currentTarget.open)}>
          <summary>Longer now or yearly?</summary>
          {comparing && (
            <LongerTerm
              id={renewal.id}
              onTake={(years) => void change(takenFor(quote, years), { code, percent }, tax)}
            />
          )}
        </details>
      )}
      {byLink.items.length > 0 && (
        <LinkedRun
          id={renewal.id}
          quote={byLink}
          progress={progress}
          reports={reports}
          words={renewal.report}
          onProgress={setProgress}
        />
      )}
      {handOpen &&
        (renewal.status === 'planned' ? (
          <Actions>
            <Button
              data-kind={byLink.items.length > 0 ? undefined : 'primary'}
              isDisabled={byHand.items.every((item) => item.refusal !== null)}
              onPress={() => void requested()}
            >
              {byLink.items.length > 0 ? 'By hand' : 'Next'}: what to do, {amountsWords(byHand.totals)}
            </Button>
          </Actions>
        ) : (
          <>
            <StepsAtRegistrars quote={byHand} payBy={renewal.payBy} />
            <ConfirmForm renewalId={renewal.id} quote={byHand} />
          </>
        ))}
      {!begun && (
        <Actions>
          <Button onPress={() => void drop()}>{renewal.status === 'planned' ? 'Drop' : 'It was not done: drop'}</Button>
        </Actions>
      )}
    </Page>
  );
}

/** A part of a quote by itself, with its own totals. */
function partOf(quote: RenewalQuote, keep: (item: QuotedItem) => boolean): RenewalQuote {
  const items = quote.items.filter(keep);
  const possible = items.filter((item) => item.refusal === null);
  return {
    ...quote,
    items,
    accounts: quote.accounts.filter(({ account }) => possible.some((item) => item.accountId === account.id)),
    totals: sumByCurrency(possible.flatMap((item) => item.total ?? [])),
  };
}

/** The terms of all names that can be bought for so many years. */
function takenFor(quote: RenewalQuote, years: number): Map<number, number> {
  return new Map(
    quote.items.flatMap(({ nameId, mostYears, leastYears, stepYears }) =>
      mostYears !== null && years <= mostYears && years >= leastYears && (years - leastYears) % stepYears === 0
        ? [[nameId, years] as const]
        : [],
    ),
  );
}
