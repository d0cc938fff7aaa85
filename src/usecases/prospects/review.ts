import { REVIEW_BY, REVIEW_PARTS, type ReviewBy, type ReviewLine, type ReviewPart, reviewLines } from '@/core/journal';
import { type Amount, convert, formatDecimal } from '@/core/money';
import { isRefusal, type Refusal, refuse } from '@/core/refusal';
import { type Day, dayIn } from '@/core/time';
import { selectRates } from '@/database/rates';
import {
  type ReviewAsked,
  type ReviewEntry,
  selectReview,
  selectReviewEntries,
  selectReviewYears,
} from '@/database/review';
import { selectSettings } from '@/database/settings';
import { writeTable } from '@/formats/csv/writeTable';
import type { Deps } from '../deps';

export type { ReviewEntry } from '@/database/review';

/** A year's cost, sales, profit and return, divided by something. */
export interface Review {
  /** `null`: all years. */
  readonly year: number | null;
  readonly by: ReviewBy;
  readonly years: readonly number[];
  readonly homeCurrency: string;
  readonly lines: readonly ReviewLine[];
  /** All names once, whatever they are divided by. */
  readonly whole: ReviewLine;
}

/** What a review is asked for, as a query says it. */
export interface ReviewQuery {
  readonly year: number | null;
  readonly by: ReviewBy;
}

const FIRST_YEAR = 1985;
const LAST_YEAR = 2099;

/** Reads `year` (left out: all years) and `by` (left out: ending). */
export function readReviewQuery(query: URLSearchParams): ReviewQuery | Refusal {
  const text = query.get('year');
  const year = text === null || text === '' || text === 'all' ? null : Number(text);
  if (year !== null && !(Number.isInteger(year) && year >= FIRST_YEAR && year <= LAST_YEAR))
    return refuse('query-invalid', 'year is a calendar year like 2026.', 'year');
  const by = query.get('by') ?? 'ending';
  const found = REVIEW_BY.find((one) => one === by);
  return found ? { year, by: found } : refuse('query-invalid', `by is one of: ${REVIEW_BY.join(', ')}.`, 'by');
}

/** The calendar year that it is for the office. */
export async function yearNow(deps: Deps): Promise<number> {
  const { zone } = await selectSettings(deps.database);
  return Number(dayIn(deps.clock(), zone).slice(0, 4));
}

const asked = ({ year, by }: ReviewQuery): ReviewAsked => ({
  from: year === null ? null : (`${year}-01-01` as Day),
  to: year === null ? null : (`${year}-12-31` as Day),
  by,
});

export async function yearReview(deps: Deps, query: ReviewQuery): Promise<Review> {
  const { database } = deps;
  const [money, all, years, rates, { homeCurrency }] = await Promise.all([
    selectReview(database, asked(query)),
    selectReview(database, { ...asked(query), by: 'year' }),
    selectReviewYears(database),
    selectRates(database),
    selectSettings(database),
  ]);
  const sales = all.groups.reduce((sum, group) => sum + group.sales, 0);
  const same = <T extends { readonly key: string }>(rows: readonly T[]) => rows.map((row) => ({ ...row, key: '' }));
  const [whole] = reviewLines(
    { groups: [{ key: '', names: all.names, sales }], period: same(all.period), sold: same(all.sold) },
    homeCurrency,
    rates,
  );
  return { ...query, years, homeCurrency, lines: reviewLines(money, homeCurrency, rates), whole: whole as ReviewLine };
}

/** An entry with its amount in the home currency at the rate of its day; `null` where none is known. */
export interface ReviewedEntry extends ReviewEntry {
  readonly inHome: Amount | null;
}

export interface ReviewedEntries {
  readonly query: ReviewQuery;
  readonly key: string | null;
  readonly part: ReviewPart | null;
  readonly total: number;
  readonly homeCurrency: string;
  readonly entries: readonly ReviewedEntry[];
  /** The sum of all that are shown; `null` where a rate is missing. */
  readonly sum: Amount | null;
}

export const MOST_ENTRIES = 5000;

/** The entries behind a figure of a review: of a group (`key`), of costs, prices or fees (`part`), or all of them. */
export async function reviewEntries(
  deps: Deps,
  query: URLSearchParams,
  limit = MOST_ENTRIES,
): Promise<ReviewedEntries | Refusal> {
  const read = readReviewQuery(query);
  if (isRefusal(read)) return read;
  const word = query.get('part');
  const part = REVIEW_PARTS.find((one) => one === word) ?? null;
  if (word !== null && part === null)
    return refuse('query-invalid', `part is one of: ${REVIEW_PARTS.join(', ')}.`, 'part');
  const key = query.get('key');
  const [{ total, entries }, rates, { homeCurrency }] = await Promise.all([
    selectReviewEntries(deps.database, { ...asked(read), key, part }, limit),
    selectRates(deps.database),
    selectSettings(deps.database),
  ]);
  const inHome = entries.map((entry) => ({
    ...entry,
    inHome: convert({ minor: entry.minor, currency: entry.currency }, homeCurrency, rates, entry.day),
  }));
  const sum = inHome.reduce<number | null>(
    (all, { inHome: one }) => (all === null || one === null ? null : all + one.minor),
    0,
  );
  return {
    query: read,
    key,
    part,
    total,
    homeCurrency,
    entries: inHome,
    sum: sum === null || total > entries.length ? null : { minor: sum, currency: homeCurrency },
  };
}

const money = (amount: Amount | null) => (amount ? formatDecimal(amount) : '');

/** A review as CSV: a line for each group, and one for all of them. */
export async function reviewCsv(deps: Deps, query: URLSearchParams): Promise<string | Refusal> {
  const read = readReviewQuery(query);
  if (isRefusal(read)) return read;
  const { lines, whole, by, homeCurrency } = await yearReview(deps, read);
  const cells = (line: ReviewLine, key: string) => [
    key,
    String(line.names),
    money(line.cost),
    String(line.sales),
    money(line.price),
    money(line.fees),
    money(line.proceeds),
    money(line.surplus),
    money(line.profit),
    line.yearlyReturn === null ? '' : String(Math.round(line.yearlyReturn * 1e4) / 1e4),
    homeCurrency,
  ];
  return writeTable(
    [
      by,
      'names',
      'cost',
      'sales',
      'prices',
      'fees',
      'proceeds',
      'surplus',
      'profit of names sold',
      'yearly return',
      'currency',
    ],
    [...lines.map((line) => cells(line, line.key)), cells(whole, 'all')],
  );
}

/** Every entry of a review's period as CSV, as it was booked and in the home currency. */
export async function reviewEntriesCsv(deps: Deps, query: URLSearchParams): Promise<string | Refusal> {
  const found = await reviewEntries(deps, query, 1_000_000);
  if (isRefusal(found)) return found;
  return writeTable(
    [
      'date',
      'name',
      'account',
      'kind',
      'part',
      'amount',
      'currency',
      `in ${found.homeCurrency}`,
      'paid by',
      'receipt',
      'note',
    ],
    found.entries.map((entry) => [
      entry.day,
      entry.ascii,
      entry.account,
      entry.kind,
      entry.part,
      formatDecimal({ minor: entry.minor, currency: entry.currency }),
      entry.currency,
      money(entry.inHome),
      entry.paymentMethod,
      entry.reference,
      entry.note,
    ]),
  );
}
