'use client';
import { useRouter } from 'next/navigation';
import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { type Amount, amount, sumByCurrency } from '@/core/money';
import type { ItemState } from '@/core/orders';
import { isRefusal } from '@/core/refusal';
import { Button } from '@/ui/controls/Button';
import { Actions, Dialog } from '@/ui/overlay/Dialog';
import { report } from '@/ui/overlay/Toasts';
import { formatAmount } from '@/ui/text/figures';
import { Ruled, Section } from '@/ui/text/Sheet';
import { Progress } from '@/ui/text/States';
import { Wide } from '@/ui/text/Wide';
import { amountsWords, namesWords, termEndWords } from '@/ui/text/words';
import type { QuotedItem, RenewalQuote } from '@/usecases/orders/quote';
import type { ItemProgress, ReportWords, RunProgress } from '@/usecases/orders/start';
import { useLedger } from '../../frame/LedgerProvider';
import {
  finishRunAction,
  leaveItemAction,
  priceRunAction,
  runProgressAction,
  sendReportsAgainAction,
  startRunAction,
  stopRunAction,
} from '../actions';
import { Otherwise } from './Otherwise';
import { type NamedReport, type ReportDraft, ReportForm } from './ReportForm';
import { TopUp } from './TopUp';

const STATE_WORDS: Readonly<Record<ItemState, string>> = {
  planned: 'to be renewed',
  waiting: 'waiting',
  sending: 'requested, no answer yet',
  pending: 'taken, to be finished',
  done: 'done',
  refused: 'refused',
  reporting: 'paid, report on its way',
  'report refused': 'paid, report refused',
  doubt: 'in doubt',
};
const VERBS = {
  renew: { verb: 'Renew', past: 'renewed', going: 'Renewing' },
  restore: { verb: 'Restore', past: 'restored', going: 'Restoring' },
} as const;
const LOOK_AGAIN_MS = 700;

/** The names of a run whose accounts have a link: priced live, confirmed once, then carried out item by item. */
export function LinkedRun({
  id,
  quote,
  progress,
  reports,
  words,
  onProgress: setProgress,
}: {
  id: string;
  quote: RenewalQuote;
  progress: RunProgress;
  reports: readonly NamedReport[];
  /** What was certified last, for a restore. */
  words: ReportWords | null;
  onProgress: (progress: RunProgress) => void;
}) {
  const router = useRouter();
  const { meta, style, reload } = useLedger();
  const [asking, setAsking] = useState(false);
  const [confirming, setConfirming] = useState(false);
  const restoring = quote.action === 'restore';
  const { verb, past, going } = VERBS[quote.action];
  const [draft, setDraft] = useState<ReportDraft>({
    reason: words?.reason ?? '',
    other: words?.other ?? '',
    certified: false,
  });
  const own = new Map(progress.items.map((item) => [item.nameId, item]));
  const items = quote.items.flatMap((item) => {
    const state = own.get(item.nameId);
    return state ? [{ item, state }] : [];
  });
  const count = (...states: ItemState[]) => items.filter(({ state }) => states.includes(state.state)).length;
  const startable = items.filter(
    ({ item, state }) => item.refusal === null && ['planned', 'refused'].includes(state.state),
  );
  const startableKey = startable.map(({ item }) => item.nameId).join(' ');
  const startableIds = useMemo(() => startableKey.split(' ').filter(Boolean).map(Number), [startableKey]);
  const underWay = count('waiting', 'sending', 'pending', 'reporting') > 0;
  const begun = underWay || count('done', 'doubt', 'report refused') > 0;

  const ask = useCallback(async () => {
    setAsking(true);
    const answer = await priceRunAction(id);
    setAsking(false);
    if (isRefusal(answer)) report({ text: answer.message, problem: true });
    else setProgress(answer);
  }, [id, setProgress]);

  // Another term, promotion or tax has another price: it is asked for again before any sum is agreed to.
  const asksFor = JSON.stringify([
    quote.promotion,
    quote.taxPercent,
    quote.items.map(({ nameId, years }) => [nameId, years]),
  ]);
  const pricedFor = useRef<string | null>(null);
  // biome-ignore lint/correctness/useExhaustiveDependencies: asked once for what the run asks for
  useEffect(() => {
    if (begun || pricedFor.current === asksFor) return;
    pricedFor.current = asksFor;
    void ask();
  }, [asksFor]);

  useEffect(() => {
    if (!underWay) return;
    const timer = setInterval(() => void runProgressAction(id).then(setProgress), LOOK_AGAIN_MS);
    return () => clearInterval(timer);
  }, [id, underWay, setProgress]);

  const isSettled = !underWay && count('done') > 0;
  useEffect(() => {
    if (isSettled) void reload();
  }, [isSettled, reload]);

  const start = async () => {
    setConfirming(false);
    const answer = await startRunAction(id, restoring ? draft : null);
    setDraft({ ...draft, certified: false });
    if (isRefusal(answer)) report({ text: answer.message, problem: true });
    setProgress(await runProgressAction(id));
  };

  const reportAgain = async () => {
    const answer = await sendReportsAgainAction(id, draft);
    if (isRefusal(answer)) report({ text: answer.message, problem: true });
    setDraft({ ...draft, certified: false });
    setProgress(await runProgressAction(id));
  };

  const stop = async () => {
    const answer = await stopRunAction(id);
    if (isRefusal(answer)) report({ text: answer.message, problem: true });
    else setProgress(answer);
  };
  const leave = async (nameId: number) => {
    const answer = await leaveItemAction(id, nameId);
    if (isRefusal(answer)) report({ text: answer.message, problem: true });
    else setProgress(answer);
  };
  const finish = async () => {
    const answer = await finishRunAction(id);
    if (isRefusal(answer)) report({ text: answer.message, problem: true });
    router.refresh();
  };

  // What was not paid for want of money can be paid in from here.
  const unpaid = quote.accounts.flatMap(({ account }) => {
    const short = items.filter(
      ({ item, state }) =>
        item.accountId === account.id && state.state === 'refused' && /^Not paid/.test(state.problem ?? ''),
    );
    const asked = short.flatMap(({ item, state }) => liveAmount(item, state) ?? item.total ?? []);
    const minor = asked.reduce((sum, one) => sum + (one.currency === account.currency ? one.minor : 0), 0);
    return short.length === 0 || !account.paymentMethods.some(({ kind }) => kind === 'balance')
      ? []
      : [{ id: account.id, label: account.label, minor: Math.max(1, minor) }];
  });
  const costs = sumByCurrency(startable.flatMap(({ item, state }) => liveAmount(item, state) ?? item.total ?? []));
  const differing = items.filter(({ item, state }) => {
    const live = liveAmount(item, state);
    return (
      live !== null && item.total !== null && (live.currency !== item.total.currency || live.minor !== item.total.minor)
    );
  }).length;
  const accounts = quote.accounts.map(({ account }) => account.label).join(', ');
  return (
    <Section aria-label="By link">
      <h2>
        By link{begun ? `: ${count('done')} of ${items.length} ${past}` : `: ${namesWords(items.length)}`}
        {count('refused') > 0 && `, ${count('refused')} refused`}
        {count('report refused') > 0 && `, ${count('report refused')} with the report refused`}
        {count('doubt') > 0 && `, ${count('doubt')} in doubt`}
      </h2>
      {underWay && (
        <Progress done={count('done', 'refused', 'doubt', 'report refused')} total={items.length} text={going} />
      )}
      {unpaid.map(({ id: accountId, label, minor }) => (
        <p key={accountId} className="caution">
          {label} did not pay for want of money. <TopUp accountId={accountId} missingMinor={minor} />
        </p>
      ))}
      {asking && <p className="soft">Asking the registrars what it costs now…</p>}
      {differing > 0 && !begun && (
        <p className="caution">
          {differing === 1 ? 'One price differs' : `${differing} prices differ`} from the price list. What the registrar
          asks now counts.
        </p>
      )}
      <Wide>
        <Ruled aria-label={`Names ${past} by link`}>
          <thead>
            <tr>
              <th>Name</th>
              <th>Account</th>
              <th>New end</th>
              <th className="figure">Price list</th>
              <th className="figure">{begun ? 'Charged' : 'Registrar asks'}</th>
              <th>Stands at</th>
              <th>
                <span className="visually-hidden">Decide</span>
              </th>
            </tr>
          </thead>
          <tbody>
            {items.map(({ item, state }) => (
              <tr key={item.nameId}>
                <td className="name">{item.unicode}</td>
                <td>{meta?.rules.accounts.find((account) => account.id === item.accountId)?.label}</td>
                <td>{endWords(item.newEnd)}</td>
                <td className="figure">{item.total && state.state !== 'done' ? formatAmount(item.total) : ''}</td>
                <td className="figure">{begun && state.state === 'refused' ? '' : figure(item, state)}</td>
                <td>
                  <span
                    className={['refused', 'doubt', 'report refused'].includes(state.state) ? 'caution' : undefined}
                  >
                    {item.refusal && state.state === 'planned'
                      ? item.refusal.message
                      : state.state === 'done'
                        ? past
                        : state.state === 'planned'
                          ? `to be ${past}`
                          : STATE_WORDS[state.state]}
                  </span>
                  {state.problem && <div className="soft">{state.problem}</div>}
                  {state.receipt && <span className="soft"> receipt {state.receipt}</span>}
                </td>
                <td>
                  {state.state === 'doubt' && (
                    <Button data-kind="plain" onPress={() => void leave(item.nameId)}>
                      Leave it
                    </Button>
                  )}
                </td>
              </tr>
            ))}
          </tbody>
        </Ruled>
      </Wide>
      <Actions>
        {startable.length > 0 && !underWay && (
          <Button data-kind="primary" isDisabled={asking} onPress={() => setConfirming(true)}>
            {begun || count('refused') > 0 ? 'Try again' : verb} {namesWords(startable.length)}
            {asking ? '' : `, ${amountsWords(costs)}`}…
          </Button>
        )}
        {!underWay && !begun && (
          <Button isDisabled={asking} onPress={() => void ask()}>
            Ask for prices again
          </Button>
        )}
        {!underWay && begun && <Button onPress={() => void finish()}>Close this run</Button>}
        {underWay && <Button onPress={() => void stop()}>Stop what is not done</Button>}
      </Actions>
      {count('report refused') > 0 && !underWay && (
        <Section aria-label="The report was refused">
          <h2>The report was refused</h2>
          <p>
            The restore is paid. Without a report that the registrar takes, the name falls back into redemption:{' '}
            {items.find(({ state }) => state.state === 'report refused')?.state.problem}
          </p>
          <ReportForm reports={reports} draft={draft} onChange={setDraft} />
          <Actions>
            <Button data-kind="primary" isDisabled={!isCertified(draft)} onPress={() => void reportAgain()}>
              Send the report again
            </Button>
          </Actions>
        </Section>
      )}
      <Dialog
        title={`${verb} ${namesWords(startable.length)}`}
        isOpen={confirming}
        onClose={() => setConfirming(false)}
      >
        <p>
          {amountsWords(costs)} will be taken at {accounts}. {firstEnd(startable.map(({ item }) => item))}{' '}
          {restoring ? 'A restore' : 'A renewal'} cannot be refunded. <Otherwise nameIds={startableIds} />
        </p>
        {restoring && <ReportForm reports={reports} draft={draft} onChange={setDraft} />}
        <Actions>
          <Button data-kind="primary" isDisabled={restoring && !isCertified(draft)} onPress={() => void start()}>
            {verb} now, {amountsWords(costs)}
          </Button>
          <Button onPress={() => setConfirming(false)}>Cancel</Button>
        </Actions>
      </Dialog>
    </Section>
  );

  function endWords(end: QuotedItem['oldEnd']): string {
    return end ? termEndWords(end, style) : '';
  }

  function firstEnd(list: readonly QuotedItem[]): string {
    const [one] = list;
    if (!one?.newEnd) return '';
    return list.length === 1
      ? `${one.unicode} will then run to ${endWords(one.newEnd)}.`
      : `Each will run to the new end shown in the list; ${one.unicode} to ${endWords(one.newEnd)}.`;
  }
}

function liveAmount(item: QuotedItem, state: ItemProgress): Amount | null {
  const currency = state.liveCurrency ?? state.currency ?? item.total?.currency;
  return state.liveMinor === null || !currency ? null : amount(state.liveMinor, currency);
}

/** What the registrar asks, or what it has taken. */
function figure(item: QuotedItem, state: ItemProgress): string {
  const currency = state.currency ?? item.total?.currency;
  if (state.chargedMinor !== null && currency) return formatAmount(amount(state.chargedMinor, currency));
  const live = liveAmount(item, state);
  return live ? formatAmount(live) : '';
}

const isCertified = ({ reason, certified }: ReportDraft) => certified && reason.trim().length >= 3;
