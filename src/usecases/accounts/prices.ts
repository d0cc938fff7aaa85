import { isCurrency } from '@/core/money';
import { parseDomainName } from '@/core/names';
import { conditionWords, type Price, readCondition } from '@/core/pricing';
import { isRefusal, type Refusal, refuse } from '@/core/refusal';
import { dayOf, parseDay } from '@/core/time';
import { selectAccount } from '@/database/accounts';
import { selectNameIds } from '@/database/names';
import { deletePrice, type PriceRow, selectPriceRows, setRise, upsertPrices } from '@/database/prices';
import { selectSettings } from '@/database/settings';
import { decodeText } from '@/formats/csv/decodeText';
import { type ListedPrice, readPriceList } from '@/formats/prices/readPriceList';
import type { Deps } from '../deps';
import { readRequest } from '../validate';
import { PriceForm, RiseForm } from './requests';

export type { PriceRow } from '@/database/prices';

import { changing } from '../changing';
import { command } from '../people/command';

/** The price list of one account, or of all. */
export function priceRows(deps: Deps, accountId: number | null = null): Promise<PriceRow[]> {
  return selectPriceRows(deps.database, accountId);
}

/** Writes one price, by ending or as a name's own. A row for the same day is replaced. */
export const savePrice = command('savePrice', async (deps: Deps, input: unknown): Promise<true | Refusal> => {
  const form = await readRequest(PriceForm, input);
  if (isRefusal(form)) return form;
  if (!isCurrency(form.currency))
    return refuse('currency-unknown', `${form.currency} is not a currency code of ISO 4217.`, 'currency');
  if (!parseDay(form.from)) return refuse('date-does-not-exist', 'Write the day like 2027-09-21.', 'from');
  const of = await pricedAs(deps, form);
  if (isRefusal(of)) return of;
  const { accountId, action, currency, yearMinor, from } = form;
  const price: Price = {
    ...of,
    accountId,
    action,
    currency,
    yearMinor,
    termTotals: form.termTotals
      ? Object.fromEntries(form.termTotals.split(',').map((pair) => pair.split(':').map(Number) as [number, number]))
      : null,
    firstYearMinor: form.firstYearMinor ?? null,
    firstYearCondition: form.firstYearMinor === undefined ? null : readCondition(form.firstYearCondition ?? ''),
    feeIncluded: form.feeIncluded ?? false,
    from,
    origin: 'by hand',
    item: action === 'extra' ? (form.item ?? '').trim() : '',
    included: form.included?.trim() ?? '',
    source: form.source?.trim() ?? '',
  };
  await writePrices(deps, [price]);
  return true;
});

async function pricedAs(deps: Deps, form: PriceForm): Promise<{ nameId: number | null; ending: string } | Refusal> {
  if (form.name) {
    const name = parseDomainName(form.name, { allowPrivateEndings: true });
    if (isRefusal(name)) return { ...name, field: 'name' };
    const nameId = (await selectNameIds(deps.database, [name.ascii])).get(name.ascii);
    if (nameId === undefined)
      return refuse('name-not-in-ledger', `${name.unicode} is not in the ledger. Add it first.`, 'name');
    return { nameId, ending: name.ending };
  }
  const ending = form.ending?.trim().toLowerCase().replace(/^\./, '') ?? '';
  const probe = parseDomainName(`seaholly.${ending}`);
  if (isRefusal(probe)) return refuse('ending-unknown', 'Write an ending like com or co.uk.', 'ending');
  return { nameId: null, ending: probe.ending };
}

/** A price of a list, beside what is known for the same day. */
export interface ListedChange {
  readonly price: ListedPrice;
  /** What a year costs there as far as is known now, minor units of the same currency; `null` where nothing is, or in another. */
  readonly knownMinor: number | null;
  readonly outcome: 'new' | 'changed' | 'same';
}

async function readList(deps: Deps, accountId: number, content: Uint8Array, source: string) {
  const account = await selectAccount(deps.database, accountId);
  if (!account) return refuse('account-unknown', 'That account is no longer there. Load the page again.');
  return readPriceList(decodeText(content).text, {
    currency: account.currency,
    numberStyle: (await selectSettings(deps.database)).numberStyle,
    from: dayOf(deps.clock()),
    source: source.trim().slice(0, 200),
  });
}

/** What a price list would bring, row by row, before anything is written. */
export async function previewPrices(
  deps: Deps,
  accountId: number,
  content: Uint8Array,
  source = '',
): Promise<ListedChange[] | Refusal> {
  const read = await readList(deps, accountId, content, source);
  if (isRefusal(read)) return read;
  const known = await selectPriceRows(deps.database, accountId);
  return read.map((price): ListedChange => {
    const before = known.find(
      (row) =>
        row.nameId === null && row.ending === price.ending && row.action === price.action && row.item === price.item,
    );
    const isSame = before && JSON.stringify(termsOf(before)) === JSON.stringify(termsOf(price));
    return {
      price,
      knownMinor: before && before.currency === price.currency ? before.yearMinor : null,
      outcome: !before ? 'new' : isSame ? 'same' : 'changed',
    };
  });
}

/** What a price comes to, without where it was seen and from when it holds. */
const termsOf = ({ currency, yearMinor, termTotals, firstYearMinor, firstYearCondition, feeIncluded }: ListedPrice) => [
  currency,
  yearMinor,
  Object.entries(termTotals ?? {}),
  firstYearMinor,
  firstYearCondition && conditionWords(firstYearCondition),
  feeIncluded,
];

/** Brings in a price list from CSV. All of it is written, or nothing; the first row that cannot be read says why. */
export const importPrices = command(
  'importPrices',
  async (deps: Deps, accountId: number, content: Uint8Array, source: string = ''): Promise<number | Refusal> => {
    const read = await readList(deps, accountId, content, source);
    if (isRefusal(read)) return read;
    await writePrices(
      deps,
      read.map((price) => ({ ...price, accountId, nameId: null, origin: 'list' })),
    );
    return read.length;
  },
);

/** Says by how much an account's prices of an ending are expected to rise; without a percentage its own history says it again. */
export const saveRise = command('saveRise', async (deps: Deps, input: unknown): Promise<true | Refusal> => {
  const form = await readRequest(RiseForm, input);
  if (isRefusal(form)) return form;
  if (!(await selectAccount(deps.database, form.accountId)))
    return refuse('account-unknown', 'That account is no longer there. Load the page again.');
  await changing(deps, (tx) => setRise(tx, form, form.percent === undefined ? null : form.percent / 100));
  return true;
});

export const removePrice = command('removePrice', async (deps: Deps, id: number): Promise<true> => {
  await changing(deps, async (tx) => {
    await deletePrice(tx, id);
  });
  return true;
});

async function writePrices(deps: Deps, prices: readonly Price[]): Promise<void> {
  await changing(deps, async (tx) => {
    await upsertPrices(tx, prices);
  });
}
