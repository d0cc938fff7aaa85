import type { Consequence, TodaySummary, Unknowns } from '@/core/ledger';
import { amountsWords, type DayStyle, dayWords, namesWords, untilWords } from './words';

const SMALL = ['No', 'One', 'Two', 'Three', 'Four', 'Five', 'Six', 'Seven', 'Eight', 'Nine', 'Ten', 'Eleven', 'Twelve'];

/** A count that begins a sentence: `Four`, `140`. */
export function countWords(count: number): string {
  return SMALL[count] ?? count.toLocaleString('en');
}

/** A count with what is counted, for the beginning of a sentence: `One name`, `Four names`. */
export function countOf(count: number, one: string, many: string): string {
  return `${countWords(count)} ${count === 1 ? one : many}`;
}

/**
 * What today comes to: what is lost, by when, and for how much it is kept. Where the forecast does not rest on every name, that nothing is lost is only
 * as far as is known.
 */
export function lostWords(
  summary: TodaySummary,
  { resting }: Pick<Unknowns, 'resting'>,
  style: DayStyle,
): { readonly lost: string | null; readonly rest: string } {
  const { lost, lostBy, saving, savingUnpriced, fails, failsFrom } = summary;
  if (lost > 0 && lostBy !== null) {
    const unpriced = savingUnpriced === 0 ? '' : `, besides ${namesWords(savingUnpriced)} without a known price`;
    const priced = saving.length === 0 ? 'No price is known that would keep' : `${amountsWords(saving)} would save`;
    return {
      lost: `${countOf(lost, 'name is', 'names are')} lost by ${untilWords(lostBy, style)}.`,
      rest: `${priced} ${lost === 1 ? 'it' : 'them'}${saving.length === 0 ? '' : unpriced}.`,
    };
  }
  if (fails > 0 && failsFrom !== null)
    return {
      lost: null,
      rest: `${countOf(fails, 'charge fails', 'charges fail')} within 60 days, the first on ${dayWords(failsFrom, style)}.`,
    };
  const far = resting === 0 ? '' : ', as far as is known';
  return { lost: null, rest: `Nothing is lost in the next 60 days${far}.` };
}

/** What is charged in the same days, and how many charges of it nobody can price. */
export function chargedWords({ charged, charges, unpriced }: TodaySummary): string {
  const some = (count: number) => (count === 1 ? '1 charge' : `${count.toLocaleString('en')} charges`);
  const priced = charges - unpriced;
  const unknown = unpriced === 0 ? '' : `${some(unpriced)} at a price not known`;
  if (charges === 0) return 'Nothing is charged in the next 60 days.';
  if (priced === 0) return `In the next 60 days there are ${unknown}.`;
  return `${amountsWords(charged)} is charged in the next 60 days by ${some(priced)}${unknown && `, besides ${unknown}`}.`;
}

export const CONSEQUENCE_WORDS: Readonly<Record<Consequence, string>> = {
  lost: 'Lost if nothing is done',
  'stops working': 'Stops working until the holder’s mail is confirmed',
  dearer: 'Gets dearer, or lapses',
};

/** What is not known yet, one short line each; empty where everything is known. */
export function unknownLines(
  unknowns: Unknowns,
): { readonly about: 'ends' | 'prices' | 'means' | 'auto-renew'; readonly text: string }[] {
  const { ends, unpriced, accounts, settings } = unknowns;
  const lines = [
    { about: 'ends', count: ends, text: ends === 1 ? 'one end of term' : `${ends.toLocaleString('en')} ends of term` },
    { about: 'prices', count: unpriced, text: `prices of ${namesWords(unpriced)}` },
    {
      about: 'means',
      count: accounts.length,
      text: accounts.length === 1 ? 'what one account pays from' : `what ${accounts.length} accounts pay from`,
    },
    { about: 'auto-renew', count: settings, text: `auto-renew of ${namesWords(settings)}` },
  ] as const;
  return lines.filter(({ count }) => count > 0).map(({ about, text }) => ({ about, text }));
}

/** How much of a forecast rests on what is known. */
export function restsWords({ resting, names }: Unknowns): string {
  return resting === 0
    ? `the forecast rests on all of ${namesWords(names)}`
    : `the forecast rests on ${(names - resting).toLocaleString('en')} of ${namesWords(names)}`;
}
