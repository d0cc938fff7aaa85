import { isUntouched } from '@/connectors/http/addresses';
import { boundedRequest } from '@/connectors/http/boundedRequest';
import { isCurrency, type Rate } from '@/core/money';
import { isRefusal, type Refusal, refuse } from '@/core/refusal';
import { type Day, dayOf, parseDay } from '@/core/time';
import { selectCurrenciesInUse, selectRates, upsertRates } from '@/database/rates';
import { noteRatesRead, type RatesSource, selectSettings, upsertSettings } from '@/database/settings';
import { readRates } from '@/formats/rates/readRates';
import { changing } from '../changing';
import type { Deps } from '../deps';
import { command } from '../people/command';
import { readRequest } from '../validate';
import { RateForm, RatesFile, RatesSourceForm } from './requests';

export type { RatesSource } from '@/database/settings';

/** Every rate that is known, the latest first. */
export function rates(deps: Deps): Promise<Rate[]> {
  return selectRates(deps.database);
}

/** Writes one rate down. Everything that is compared in another currency changes with it. */
export const saveRate = command('saveRate', async (deps: Deps, input: unknown): Promise<true | Refusal> => {
  const form = await readRequest(RateForm, input);
  if (isRefusal(form)) return form;
  const from = parseDay(form.from);
  if (!from || from > dayOf(deps.clock()))
    return refuse('date-out-of-range', 'Write the day from which the rate held, like 2026-11-01.', 'from');
  const unknown = [form.currency, form.into].find((code) => !isCurrency(code));
  if (unknown || form.currency === form.into)
    return refuse('currency-unknown', 'Write two different currency codes of ISO 4217.', 'currency');
  const { currency, into, factor } = form;
  await changing(deps, (tx) => upsertRates(tx, [{ from, currency, into, factor }]));
  return true;
});

/** What a file of rates would bring. */
export interface RatesPreview {
  readonly count: number;
  readonly firstDay: Day;
  readonly lastDay: Day;
  /** Those of its last day. */
  readonly newest: readonly Rate[];
  /** Currencies in which nothing here is priced: they are left out. */
  readonly leftOut: number;
}

/** No more rates than this are kept of one file: each window holds them all. */
const MOST_KEPT = 5000;

/** The rates of a file between currencies in use; with the bank's own, for two rates over it make a third. */
async function readFile(deps: Deps, { text, base }: RatesFile) {
  const { homeCurrency } = await selectSettings(deps.database);
  const read = readRates(text, { into: homeCurrency, base, today: dayOf(deps.clock()) });
  if (isRefusal(read)) return { ...read, field: 'text' };
  const inUse = new Set([homeCurrency, ...(await selectCurrenciesInUse(deps.database))]);
  // The bank's own currency stands in every rate: two rates over it make a third, so it is kept though nothing is priced in it.
  const hub = [read[0]?.currency, read[0]?.into].find((code) =>
    read.every(({ currency, into }) => code === currency || code === into),
  );
  const isWanted = (code: string) => inUse.has(code) || code === hub;
  const kept = read.filter(({ currency, into }) => isWanted(currency) && isWanted(into));
  if (kept.length === 0)
    return refuse('no-rates-in-use', 'None of its currencies is one in which anything here is priced.', 'text');
  if (kept.length > MOST_KEPT)
    return refuse(
      'too-many-rates',
      `It holds ${kept.length.toLocaleString('en')} rates in use. Bring ${MOST_KEPT.toLocaleString('en')} at most: fewer days.`,
      'text',
    );
  const left = new Set(read.flatMap(({ currency, into }) => [currency, into].filter((code) => !isWanted(code))));
  return { kept, leftOut: left.size };
}

/** What a file of rates would bring, before anything is written. */
export async function previewRates(deps: Deps, input: unknown): Promise<RatesPreview | Refusal> {
  const file = await readRequest(RatesFile, input);
  if (isRefusal(file)) return file;
  const read = await readFile(deps, file);
  if (isRefusal(read)) return read;
  const days = read.kept.map(({ from }) => from).sort();
  const lastDay = days.at(-1) as Day;
  return {
    count: read.kept.length,
    firstDay: days[0] as Day,
    lastDay,
    newest: read.kept.filter(({ from }) => from === lastDay),
    leftOut: read.leftOut,
  };
}

/** Brings in a file of rates, all or nothing; answers how many. */
export const importRates = command('importRates', async (deps: Deps, input: unknown): Promise<number | Refusal> => {
  const file = await readRequest(RatesFile, input);
  if (isRefusal(file)) return file;
  const read = await readFile(deps, file);
  if (isRefusal(read)) return read;
  return writeRates(deps, read.kept);
});

/** Writes what is new of them; nothing is raised where nothing is. Answers how many rates there were. */
async function writeRates(deps: Deps, read: readonly Rate[]): Promise<number> {
  const keyOf = ({ from, currency, into }: Rate) => `${from} ${currency} ${into}`;
  const known = new Map((await selectRates(deps.database)).map((rate) => [keyOf(rate), rate.factor]));
  // One rate for a day and a pair: the last of the file.
  const once = [...new Map(read.map((rate) => [keyOf(rate), rate])).values()];
  const fresh = once.filter((rate) => known.get(keyOf(rate)) !== rate.factor);
  if (fresh.length > 0) await changing(deps, (tx) => upsertRates(tx, fresh));
  return once.length;
}

/** Where rates are read daily; `null` where they are brought by hand alone. */
export async function ratesSource(deps: Deps): Promise<RatesSource | null> {
  return (await selectSettings(deps.database)).rates;
}

/** Sets where rates are read daily, and reads them at once: an address that does not work is not kept. */
export const saveRatesSource = command(
  'saveRatesSource',
  async (deps: Deps, input: unknown): Promise<number | Refusal> => {
    const form = await readRequest(RatesSourceForm, input);
    if (isRefusal(form)) return form;
    const url = form.url?.trim() ?? '';
    if (url === '') {
      await changing(deps, (tx) => upsertSettings(tx, { rates: null }));
      return 0;
    }
    if (!URL.canParse(url) || !isUntouched(new URL(url)))
      return refuse(
        'address-unread',
        'Write an address that begins with https: nobody may change rates on their way.',
        'url',
      );
    const count = await readFrom(deps, { url, base: form.base });
    if (isRefusal(count)) return { ...count, field: 'url' };
    const rates = { url, base: form.base, readAt: deps.clock(), problem: null };
    await changing(deps, (tx) => upsertSettings(tx, { rates }));
    return count;
  },
);

const MOST_BYTES = 4_000_000;

async function readFrom(deps: Deps, { url, base }: Pick<RatesSource, 'url' | 'base'>): Promise<number | Refusal> {
  const { records } = await selectSettings(deps.database);
  const answer = await boundedRequest(url, {}, { allowedHosts: records.allowedHosts, mostBytes: MOST_BYTES }).catch(
    (error: unknown) => {
      deps.log.warn({ err: error }, 'the rates could not be read');
      return error instanceof Error ? error.message : 'no answer';
    },
  );
  if (typeof answer === 'string')
    return refuse('rates-not-read', `The rates could not be read: ${answer}. Check the address, or try later.`);
  if (answer.status !== 200)
    return refuse('rates-not-read', `The address answered with ${answer.status} in place of rates. Check it.`);
  const read = await readFile(deps, { text: answer.body, base });
  return isRefusal(read) ? read : writeRates(deps, read.kept);
}

/** Reads the rates of the day where an address for them is set: once a day, and every hour until it worked. Throws when it did not. */
export async function readDailyRates(deps: Deps): Promise<void> {
  const source = await ratesSource(deps);
  const now = deps.clock();
  if (!source || (source.problem === null && source.readAt !== null && dayOf(now) === dayOf(source.readAt))) return;
  const count = await readFrom(deps, source);
  const outcome = isRefusal(count) ? { problem: count.message } : { readAt: now, problem: null };
  await noteRatesRead(deps.database, source.url, outcome);
  // The job tells of it where prices are looked at, and tries again.
  if (isRefusal(count)) throw new Error(count.message);
}
