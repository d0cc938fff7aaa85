import { type Refusal, refuse } from '../refusal';
import { readDate } from './readDate';

declare const monthBrand: unique symbol;
/** A calendar month, `YYYY-MM`. */
export type Month = string & { readonly [monthBrand]: true };

const YEAR_FIRST = /^(\d{4})\s*[-/.]\s*(\d{1,2})$/;
const MONTH_FIRST = /^(\d{1,2})\s*[-/.]?\s*(\d{4}|\d{2})$/;
const NAMED = /^(\p{L}{3,12}\.?)\s+(?:(\d{4})|(\d{2}))$/u;

/**
 * Reads a month as people write it, on cards too: `02/27`, `2/2027`, `2027-02`, `0227`, `Feb 2027`. A year of two digits is one of
 * 2000 to 2099. Refused: what is no month.
 */
export function readMonth(text: string): Month | Refusal {
  const written = text.trim();
  const yearFirst = YEAR_FIRST.exec(written);
  if (yearFirst) return monthOf(yearFirst[1] ?? '', Number(yearFirst[2]), written);
  const monthFirst = MONTH_FIRST.exec(written);
  if (monthFirst) return monthOf(monthFirst[2] ?? '', Number(monthFirst[1]), written);
  const named = NAMED.exec(written);
  // The first of it is a day that can be read in every language that is known.
  const first = named && readDate(`1 ${named[1]} ${named[2] ?? `20${named[3]}`}`, 'day first');
  if (first && 'at' in first) return new Date(first.at).toISOString().slice(0, 7) as Month;
  return notRead(written);
}

function monthOf(year: string, month: number, written: string): Month | Refusal {
  if (month < 1 || month > 12) return notRead(written);
  return `${year.length === 2 ? `20${year}` : year}-${String(month).padStart(2, '0')}` as Month;
}

function notRead(written: string): Refusal {
  return refuse('month-not-read', `“${written.slice(0, 20)}” is not a month. Write it like 02/27.`);
}
