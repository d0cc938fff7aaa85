import { isRefusal, refuse } from '@/core/refusal';
import { compute } from '@/usecases/computing';
import { carryOutSwitches } from '@/usecases/links/switches';
import { nameDetail } from '@/usecases/names/detail';
import { confirmSwitch, editNames, requestSwitch } from '@/usecases/names/edit';
import { addEntry, correctEntry } from '@/usecases/names/entries';
import { type HistoryLine, historyPage } from '@/usecases/names/history';
import { idsOfNames } from '@/usecases/names/ids';
import { SayEnds, SayMeans, SayPrices, sayEnds, sayMeans, sayPrices } from '@/usecases/names/mendUnknown';
import { patchName } from '@/usecases/names/one';
import { AddEntry, ConfirmSwitch, EditNames, RequestSwitch } from '@/usecases/names/requests';
import { undo, undoLast } from '@/usecases/names/undo';
import { dropView, savedViews, saveView } from '@/usecases/names/views';
import { seenNames } from '@/usecases/reminders/remind';
import { decideRescue, saveSaleOdds } from '@/usecases/rescue/decide';
import { type DropRow, dropNames, dropping, type Hanging, hangingOn, keepAfterAll } from '@/usecases/rescue/drop';
import { refundName } from '@/usecases/rescue/refund';
import { DecideRescue, DropNames, KeepAfterAll, RefundName, SaleOddsForm } from '@/usecases/rescue/requests';
import { idIn, textOf } from '../asked';
import { bodyOf, carriedOut, count, done } from '../documents/answers';
import { detail, drop, hanging, line, views } from '../documents/names';
import { documentOf, from, list, orNull, ready, whole } from '../kinds';
import { type AnyOperation, type Asked, operation } from '../operation';

const switched: AnyOperation['after'] = (deps) => carryOutSwitches(deps);

/** Names that stand in a query, by commas. */
async function namesAsked({ deps, query }: Asked) {
  const written = (query.get('names') ?? '').split(',').filter(Boolean);
  if (written.length === 0) return refuse('query-invalid', 'Say which names, separated by commas.', 'names');
  const ids = await idsOfNames(deps, written);
  return isRefusal(ids) ? ids : [...ids.values()];
}

/** A command about names, answered with what it did. */
const act = (
  path: string,
  summary: string,
  body: NonNullable<AnyOperation['body']>,
  work: (deps: Asked['deps'], body: unknown) => ReturnType<typeof editNames>,
  after?: AnyOperation['after'],
): AnyOperation =>
  operation({
    method: 'POST',
    path,
    summary,
    body,
    answer: done,
    run: ({ deps, body: sent }) => work(deps, sent),
    ...(after ? { after } : {}),
  });

const AS_OF = { schema: { type: 'string' }, description: 'A day or instant up to two years ahead.' };

/** A name's document as the thread has written it. */
const nameNow = async ({ deps, path, query }: Asked) => {
  const bytes = await compute(deps, 'nameOn', path.name ?? '', query.toString());
  return isRefusal(bytes) ? bytes : (JSON.parse(new TextDecoder().decode(bytes)) as object);
};

export const NAMES: readonly AnyOperation[] = [
  operation({
    method: 'GET',
    path: '/names/{name}',
    summary: 'One name, today or as of a day ahead',
    query: { asOf: AS_OF },
    answer: ready('Name'),
    run: nameNow,
  }),
  operation({
    method: 'PATCH',
    path: '/names/{name}',
    summary: 'Change a name; what is left out stays as it is',
    bodySchema: { $ref: '#/components/schemas/NameChange' },
    answer: ready('Name'),
    run: async (asked) => {
      const changed = await patchName(asked.deps, asked.path.name ?? '', asked.body);
      return isRefusal(changed) ? changed : nameNow({ ...asked, query: new URLSearchParams() });
    },
  }),
  act('/edits', 'Change many names at once', EditNames, editNames),
  act('/switches', 'Ask for auto-renew, lock or privacy to be switched', RequestSwitch, requestSwitch, switched),
  act('/switches/confirm', 'Say how a setting was seen at the registrar', ConfirmSwitch, confirmSwitch),
  act('/drops', 'Let names go: auto-renew is switched off, their reason is kept', DropNames, dropNames, switched),
  act('/drops/keep', 'Keep names after all', KeepAfterAll, keepAfterAll, switched),
  act('/rescue/decisions', 'Decide about names in danger', DecideRescue, decideRescue),
  act('/unknown/ends', 'Say when terms end that nobody has said', SayEnds, sayEnds),
  operation({
    method: 'POST',
    path: '/unknown/prices',
    summary: 'Say what endings cost at accounts without a price',
    body: SayPrices,
    answer: count,
    run: ({ deps, body }) => sayPrices(deps, body),
  }),
  operation({
    method: 'POST',
    path: '/unknown/means',
    summary: 'Say by what accounts pay',
    body: SayMeans,
    answer: count,
    run: ({ deps, body }) => sayMeans(deps, body),
  }),
  operation({
    method: 'POST',
    path: '/refunds',
    summary: 'Delete a fresh registration for its refund',
    body: RefundName,
    spends: true,
    answer: done,
    run: ({ deps, body }) => refundName(deps, body),
  }),
  operation({
    method: 'PUT',
    path: '/rescue/odds',
    summary: 'What is assumed of selling names',
    body: SaleOddsForm,
    answer: carriedOut,
    run: ({ deps, body }) => saveSaleOdds(deps, body),
  }),
  operation({
    method: 'GET',
    path: '/drops',
    summary: 'Names that are being let go',
    answer: documentOf<DropRow[]>()({ drops: from((rows: DropRow[]) => rows, list(drop)) }),
    run: ({ deps }) => dropping(deps),
  }),
  operation({
    method: 'GET',
    path: '/drops/hanging',
    summary: 'What is known to hang on names before they are let go',
    query: { names: { schema: { type: 'string' }, description: 'Names, separated by commas.', required: true } },
    answer: documentOf<Hanging[]>()({ names: from((rows: Hanging[]) => rows, list(hanging)) }),
    run: async (asked) => {
      const ids = await namesAsked(asked);
      return isRefusal(ids) ? ids : hangingOn(asked.deps, ids);
    },
  }),
  operation({
    method: 'POST',
    path: '/seen',
    summary: 'Take note that what was told of names has been seen',
    bodySchema: bodyOf({ names: { type: 'array', items: { type: 'string' }, minItems: 1 } }),
    answer: carriedOut,
    run: async ({ deps, body }) => {
      const names = (body as { names?: unknown } | null)?.names;
      if (!Array.isArray(names) || !names.every((name) => typeof name === 'string'))
        return refuse('request-invalid', 'names is a list of names.', 'names');
      const ids = await idsOfNames(deps, names);
      if (isRefusal(ids)) return ids;
      return seenNames(deps, [...ids.values()]);
    },
  }),
  operation({
    method: 'GET',
    path: '/names/{name}/history',
    summary: 'Everything that was done with a name, and its entries',
    answer: detail,
    run: ({ deps, path }) => nameDetail(deps, path.name ?? ''),
  }),
  operation({
    method: 'POST',
    path: '/entries',
    summary: 'Write an entry: money spent on a name or earned by it',
    body: AddEntry,
    status: 201,
    answer: done,
    run: ({ deps, body }) => addEntry(deps, body),
  }),
  operation({
    method: 'POST',
    path: '/entries/{id}/correct',
    summary: 'Put an entry right by its counter-entry',
    answer: done,
    run: (asked) => correctEntry(asked.deps, idIn(asked)),
  }),
  operation({
    method: 'GET',
    path: '/history',
    summary: 'What was done in the books, the newest first',
    query: {
      before: { schema: { type: 'integer' }, description: 'The number that the page before ended with.' },
      limit: { schema: { type: 'integer', minimum: 1, maximum: 1000, default: 100 }, description: 'How many.' },
    },
    answer: documentOf<HistoryLine[]>()({
      history: from((rows: HistoryLine[]) => rows, list(line)),
      next: from((rows: HistoryLine[]) => rows.at(-1)?.id, orNull(whole)),
    }),
    run: ({ deps, query }) => historyPage(deps, query),
  }),
  operation({
    method: 'POST',
    path: '/history/{id}/undo',
    summary: 'Take back what was done, as far as nothing else rests on it',
    answer: done,
    run: (asked) => undo(asked.deps, idIn(asked)),
  }),
  operation({
    method: 'POST',
    path: '/history/undo-last',
    summary: 'Take back the last thing that a person did',
    answer: done,
    run: ({ deps }) => undoLast(deps),
  }),
  operation({
    method: 'GET',
    path: '/views',
    summary: 'Saved views of the ledger',
    answer: views,
    run: ({ deps }) => savedViews(deps),
  }),
  operation({
    method: 'POST',
    path: '/views',
    summary: 'Save a view',
    bodySchema: bodyOf(
      {
        label: { type: 'string' },
        query: { type: 'string' },
        columns: { type: 'array', items: { type: 'string' } },
      },
      ['label', 'query'],
    ),
    status: 201,
    answer: views,
    run: (asked) => {
      const columns = (asked.body as { columns?: unknown } | null)?.columns ?? [];
      return Array.isArray(columns) && columns.every((one) => typeof one === 'string')
        ? saveView(asked.deps, textOf(asked, 'label'), textOf(asked, 'query'), columns)
        : Promise.resolve(refuse('request-invalid', 'columns is a list of texts.', 'columns'));
    },
  }),
  operation({
    method: 'DELETE',
    path: '/views/{id}',
    summary: 'Remove a view',
    answer: views,
    run: (asked) => dropView(asked.deps, idIn(asked)),
  }),
];
