import { isRefusal, refuse } from '@/core/refusal';
import { idsOfNames } from '@/usecases/names/ids';
import { carryOutRun } from '@/usecases/orders/carryOut';
import { compareTerms, type TermsCompared } from '@/usecases/orders/compareTerms';
import { confirmRenewal } from '@/usecases/orders/confirm';
import { NamedRenewal, quoteByName, renewByName } from '@/usecases/orders/documents';
import { changeRenewal, moveRenewal, openRenewal, openRenewals, payRunBy, planRenewal } from '@/usecases/orders/plan';
import { ConfirmRenewal, MoveRenewal, PayBy, QuoteRenewal } from '@/usecases/orders/requests';
import {
  CertifiedReport,
  finishRun,
  leaveItem,
  priceRun,
  runProgress,
  sendReportsAgain,
  startRun,
  stopRun,
} from '@/usecases/orders/start';
import { uuidIn } from '../../http/params';
import { carriedOut, count, done } from '../documents/answers';
import { progress, type Row, run, runRow } from '../documents/runs';
import { documentOf, figure, from, list, money, named, orNull, ready, whole } from '../kinds';
import { type AnyOperation, type Asked, operation } from '../operation';

const NO_RUN = refuse('renewal-unknown', 'There is no such run.');

const runId = ({ path }: Asked) => uuidIn(path.id ?? '');

/** Does something with the run of the address, where there is one. */
async function withRun<T>(asked: Asked, work: (id: string) => Promise<T>): Promise<T | typeof NO_RUN> {
  const id = runId(asked);
  return id === null ? NO_RUN : work(id);
}

const progressOf = (asked: Asked) =>
  withRun(asked, async (id) => {
    const open = await openRenewal(asked.deps, id);
    if (isRefusal(open)) return open;
    const names = new Map(open.renewal.items.map(({ nameId, ascii }) => [nameId, ascii]));
    return { ...(await runProgress(asked.deps, id)), names };
  });

const goOn: NonNullable<AnyOperation['after']> = (deps, { path }) => carryOutRun(deps, path.id ?? '');

export const RUNS: readonly AnyOperation[] = [
  operation({
    method: 'POST',
    path: '/renewals/quote',
    summary: 'What renewing would do and cost',
    body: NamedRenewal,
    answer: ready('RenewalQuote'),
    run: ({ deps, body }) => quoteByName(deps, body),
  }),
  operation({
    method: 'POST',
    path: '/renewals',
    summary: 'Take down renewals that were carried out, once for each key',
    body: NamedRenewal,
    spends: true,
    status: 201,
    answer: ready('Renewal'),
    run: ({ deps, body, key }) => renewByName(deps, body, key),
  }),
  operation({
    method: 'GET',
    path: '/runs',
    summary: 'Runs of renewals and restores that are open',
    answer: documentOf<Row[]>()({ runs: from((rows: Row[]) => rows, list(runRow)) }),
    run: ({ deps }) => openRenewals(deps),
  }),
  operation({
    method: 'POST',
    path: '/runs',
    summary: 'Plan a run of renewals or restores: nothing is spent yet',
    body: QuoteRenewal,
    status: 201,
    answer: run,
    run: ({ deps, body }) => planRenewal(deps, body),
  }),
  operation({
    method: 'GET',
    path: '/runs/{id}',
    summary: 'A run with its quote',
    answer: run,
    run: (asked) => withRun(asked, (id) => openRenewal(asked.deps, id)),
  }),
  operation({
    method: 'PUT',
    path: '/runs/{id}',
    summary: 'Change the names, terms and price of a run that has not begun',
    body: QuoteRenewal,
    answer: run,
    run: (asked) => withRun(asked, (id) => changeRenewal(asked.deps, id, asked.body)),
  }),
  operation({
    method: 'GET',
    path: '/runs/{id}/progress',
    summary: 'How far each name of a run is',
    answer: progress,
    run: progressOf,
  }),
  operation({
    method: 'POST',
    path: '/runs/{id}/prices',
    summary: 'Ask the registrars what they would charge now',
    answer: progress,
    run: async (asked) => {
      const priced = await withRun(asked, (id) => priceRun(asked.deps, id));
      return isRefusal(priced) ? priced : progressOf(asked);
    },
  }),
  operation({
    method: 'POST',
    path: '/runs/{id}/start',
    summary:
      'Start a run: each name goes on its way for at most its price; a restore takes what is certified in its report',
    body: CertifiedReport,
    optionalBody: true,
    spends: true,
    status: 202,
    answer: count,
    run: (asked) => withRun(asked, (id) => startRun(asked.deps, id, asked.body)),
    after: goOn,
  }),
  operation({
    method: 'POST',
    path: '/runs/{id}/reports',
    summary: 'Send restore reports again that were refused, in other words',
    body: CertifiedReport,
    spends: true,
    status: 202,
    answer: count,
    run: (asked) => withRun(asked, (id) => sendReportsAgain(asked.deps, id, asked.body)),
    after: goOn,
  }),
  operation({
    method: 'POST',
    path: '/runs/{id}/stop',
    summary: 'Stop what has not been sent',
    answer: count,
    run: (asked) => withRun(asked, (id) => stopRun(asked.deps, id)),
  }),
  operation({
    method: 'POST',
    path: '/runs/{id}/finish',
    summary: 'Close a run in which everything is settled',
    answer: carriedOut,
    run: (asked) => withRun(asked, (id) => finishRun(asked.deps, id)),
  }),
  operation({
    method: 'POST',
    path: '/runs/{id}/items/{name}/leave',
    summary: 'Leave a name in doubt to a person',
    answer: carriedOut,
    run: (asked) =>
      withRun(asked, async (id) => {
        const ids = await idsOfNames(asked.deps, [asked.path.name ?? '']);
        if (isRefusal(ids)) return ids;
        return leaveItem(asked.deps, id, ids.get(asked.path.name ?? '') ?? 0);
      }),
  }),
  operation({
    method: 'POST',
    path: '/runs/{id}/confirm',
    summary: 'Take down what was done by hand, with what was charged',
    body: ConfirmRenewal,
    fills: { id: 'id' },
    answer: done,
    run: ({ deps, body }) => confirmRenewal(deps, body),
  }),
  operation({
    method: 'POST',
    path: '/runs/{id}/move',
    summary: 'Note that a run was taken to the registrar, or drop it',
    body: MoveRenewal,
    fills: { id: 'id' },
    answer: runRow,
    run: ({ deps, body }) => moveRenewal(deps, body),
  }),
  operation({
    method: 'POST',
    path: '/runs/{id}/pay-by',
    summary: 'Choose by which of its payment methods an account pays in a run',
    body: PayBy,
    fills: { id: 'id' },
    answer: runRow,
    run: ({ deps, body }) => payRunBy(deps, body),
  }),
  operation({
    method: 'GET',
    path: '/runs/{id}/terms',
    summary: 'What so many years cost now, beside one year at a time',
    query: {
      years: { schema: { type: 'integer', minimum: 2, maximum: 10 }, description: 'How many.', required: true },
    },
    answer: named(
      'TermsCompared',
      documentOf<TermsCompared>()({
        years: whole,
        names: whole,
        leftOut: whole,
        sums: list(documentOf<TermsCompared['sums'][number]>()({ now: money, yearly: money, later: money })),
        pastRise: orNull(figure),
      }),
    ),
    run: (asked) => {
      const years = Number(asked.query.get('years'));
      return Number.isInteger(years) && years >= 2 && years <= 10
        ? withRun(asked, (id) => compareTerms(asked.deps, id, years))
        : Promise.resolve(refuse('query-invalid', 'years is 2 to 10.', 'years'));
    },
  }),
];
