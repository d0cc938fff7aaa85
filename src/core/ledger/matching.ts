import type { Amount } from '../money';
import type { Places } from '../table';
import { addDays } from '../time';
import { flagReader } from './columns';
import { PURPOSES } from './data';
import { type LedgerDay, phaseCode, settingCode } from './ledgerDay';
import type { LedgerView } from './view';

/** The places of the names that the view's filters keep on a day, in order. */
export function matchingPlaces(ledger: LedgerDay, view: LedgerView): Places {
  const tests = testsOf(ledger, view);
  const text = view.text.trim().toLowerCase();
  if (tests.length === 0 && text === '') return ledger.projection.names.places;
  const found = new Int32Array(ledger.length);
  let count = 0;
  const keep = (place: number): true => {
    for (const test of tests) if (!test(place)) return true;
    found[count] = place;
    count += 1;
    return true;
  };
  if (text === '') for (let place = 0; place < ledger.length; place += 1) keep(place);
  else eachSaying(ledger, text, keep);
  return found.subarray(0, count);
}

/** Visits the places of names that hold a text, or whose notes do, in order. */
function eachSaying({ projection: { names } }: LedgerDay, text: string, visit: (place: number) => true): void {
  const noted = Object.entries(names.columns.sparse.notes)
    .filter(([, notes]) => notes.toLowerCase().includes(text))
    .map(([place]) => Number(place));
  if (noted.length === 0) {
    names.spellings.eachWith(text, visit);
    return;
  }
  const places = new Set(noted);
  names.spellings.eachWith(text, (place) => Boolean(places.add(place)));
  for (const place of [...places].sort((a, b) => a - b)) visit(place);
}

type Test = (place: number) => boolean;

function testsOf(ledger: LedgerDay, view: LedgerView): Test[] {
  const { names, index } = ledger.projection;
  const { columns } = names;
  const tests: Test[] = [];
  /** Keeps what has one of some numbers in a column. */
  const within = (codes: readonly number[], of: (place: number) => number) => {
    const wanted = new Set(codes);
    tests.push((place) => wanted.has(of(place)));
  };
  if (view.accountIds.length > 0) within(view.accountIds, (place) => columns.accountId[place] as number);
  if (view.endings.length > 0)
    within(
      view.endings.map((ending) => columns.endings.indexOf(ending)),
      (place) => columns.ending[place] as number,
    );
  if (view.phases.length > 0) within(view.phases.map(phaseCode), (place) => ledger.phase[place] as number);
  if (view.settings.length > 0) within(view.settings.map(settingCode), (place) => ledger.setting[place] as number);
  const purpose = flagReader('purpose');
  const purposeOf = (place: number) => purpose(columns.flags[place] as number);
  if (view.purposes.length > 0)
    within(
      view.purposes.map((one) => PURPOSES.indexOf(one)),
      purposeOf,
    );
  if (view.tags.length > 0)
    within(
      columns.tagLists.flatMap((list, code) => (list.some((tag) => view.tags.includes(tag)) ? [code] : [])),
      (place) => columns.tags[place] as number,
    );
  if (view.dueWithinDays !== null) {
    const last = addDays(ledger.day, view.dueWithinDays);
    tests.push((place) => (ledger.deadlineAt[place] as number) <= last);
  }
  const { homeCurrency } = index.rules;
  range(view.costFrom, view.costTo, homeCurrency, (place) => ledger.before(place), tests);
  range(view.askingFrom, view.askingTo, homeCurrency, (place) => names.asking(place), tests);
  const forSale = PURPOSES.indexOf('for sale');
  if (view.forSale !== null) tests.push((place) => (purposeOf(place) === forSale) === view.forSale);
  if (view.neverLost !== null) tests.push((place) => names.flag(place, 'neverLost') === view.neverLost);
  if (view.dateless) tests.push((place) => Number.isNaN(ledger.termEnd[place]));
  return tests;
}

function range(
  from: number | null,
  to: number | null,
  currency: string,
  of: (place: number) => Amount | null,
  tests: Test[],
): void {
  if (from === null && to === null) return;
  tests.push((place) => {
    const value = of(place);
    if (value === null || value.currency !== currency) return false;
    return value.minor >= (from ?? 0) && value.minor <= (to ?? Number.POSITIVE_INFINITY);
  });
}
