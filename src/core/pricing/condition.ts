/** What a first price is bound to. */
export interface FirstYearCondition {
  /** The shortest and the longest term, in years, with which it is given. */
  readonly leastYears: number;
  readonly greatestYears: number;
  readonly newCustomers: boolean;
  /** A code that has to be told. */
  readonly code: string | null;
  /** Another condition, in words: nobody but a person knows whether it is met. */
  readonly words: string;
}

const LONGEST_TERM = 10;

export const ANY_TERM: FirstYearCondition = {
  leastYears: 1,
  greatestYears: LONGEST_TERM,
  newCustomers: false,
  code: null,
  words: '',
};

const YEARS: Readonly<Record<string, number>> = {
  one: 1,
  two: 2,
  three: 3,
  four: 4,
  five: 5,
  six: 6,
  seven: 7,
  eight: 8,
  nine: 9,
  ten: 10,
};
const NUMBER = `(\\d{1,2}|${Object.keys(YEARS).join('|')})`;
const LEAST = new RegExp(`^(?:at least )?${NUMBER} years?(?: at least| or more|\\+)?$`, 'i');
const GREATEST = new RegExp(`^(?:at most ${NUMBER} years?|${NUMBER} years? at most)$`, 'i');
const ONLY = new RegExp(`^(?:only )?${NUMBER} years?(?: only)?$`, 'i');
const CODE = /^code[ :]+(\S{1,40})$/i;

const numberOf = (text: string | undefined) => YEARS[(text ?? '').toLowerCase()] ?? Number(text);

/**
 * Reads a condition as it is written in a price list: parts behind semicolons or commas, each a term (“3 years only”, “at least 2
 * years”, “1 year at most”), “new customers”, a code (“code SPRING”), or any other words, which are kept. Empty, and “any term”, bind
 * to nothing.
 */
export function readCondition(text: string): FirstYearCondition {
  let read = ANY_TERM;
  const words: string[] = [];
  for (const part of text.split(/[;,]/).map((piece) => piece.trim())) {
    if (part === '' || /^any term$/i.test(part)) continue;
    const [only, least, greatest, code] = [ONLY.exec(part), LEAST.exec(part), GREATEST.exec(part), CODE.exec(part)];
    const years = numberOf((only ?? least)?.[1] ?? greatest?.[1] ?? greatest?.[2]);
    const isTerm = years >= 1 && years <= LONGEST_TERM;
    if (only && isTerm) read = { ...read, leastYears: years, greatestYears: years };
    else if (least && isTerm) read = { ...read, leastYears: years };
    else if (greatest && isTerm) read = { ...read, greatestYears: years };
    else if (/^(for )?new customers?( only)?$/i.test(part)) read = { ...read, newCustomers: true };
    else if (code) read = { ...read, code: code[1] ?? null };
    else words.push(part);
  }
  return { ...read, words: words.join('; ') };
}

/** The condition in words, as `readCondition` reads them back: `3 years only; new customers`. `any term` when it binds to nothing. */
export function conditionWords({ leastYears, greatestYears, newCustomers, code, words }: FirstYearCondition): string {
  const years = (count: number) => (count === 1 ? 'one year' : `${count} years`);
  const parts = [
    leastYears === greatestYears ? `${years(leastYears)} only` : '',
    leastYears !== greatestYears && leastYears > 1 ? `at least ${years(leastYears)}` : '',
    leastYears !== greatestYears && greatestYears < LONGEST_TERM ? `at most ${years(greatestYears)}` : '',
    newCustomers ? 'new customers' : '',
    code === null ? '' : `code ${code}`,
    words,
  ].filter((part) => part !== '');
  return parts.length === 0 ? 'any term' : parts.join('; ');
}

/** Who buys, and for how long. */
export interface FirstPurchase {
  readonly years: number;
  /** Has never bought anything at that account. */
  readonly isNewCustomer: boolean;
  /** Codes that may be told there. */
  readonly codes: readonly string[];
}

/** Whether a purchase meets a condition. One in other words is never taken as met: it is told beside the price instead. */
export function meetsCondition(condition: FirstYearCondition, { years, isNewCustomer, codes }: FirstPurchase): boolean {
  return (
    years >= condition.leastYears &&
    years <= condition.greatestYears &&
    (!condition.newCustomers || isNewCustomer) &&
    (condition.code === null || codes.some((code) => code.toLowerCase() === condition.code?.toLowerCase())) &&
    condition.words === ''
  );
}
