import { roundHalfAway } from '../money';

/** Paid on the way of a name through the years. */
export type PaidAction = 'register' | 'renew' | 'transfer';

/** When something is paid, which its price depends on. */
export interface PaidWhen {
  /** Whole years from today. */
  readonly yearsFromNow: number;
  /** The very first payment: prices for new customers hold for no other. */
  readonly isFirst: boolean;
}

/**
 * What one account asks for a name of one ending, over years: minor units of the one currency of the comparison. `null`: not sold there,
 * no price is known, or no rate into that currency.
 */
export interface YearPrices {
  readonly accountId: number;
  /** Years that a transfer to it adds to the term. */
  readonly transferYears: number;
  /** Not rounded where it comes from another currency: each payment is rounded once, when it is told. */
  pay(action: PaidAction, years: number, when: PaidWhen): number | null;
}

/** A name as it stands today. */
export type Held =
  | {
      /** Still to be registered. */
      readonly kind: 'new';
    }
  | {
      readonly kind: 'held';
      readonly accountId: number;
      /** Years from today to the paid-through end; negative past the term. */
      readonly yearsLeft: number;
    };

/** Terms that may be bought, in years, and how far from its payment a term may reach. */
export interface YearTerms {
  readonly register: readonly number[];
  readonly renew: readonly number[];
  readonly ceilingYears: number;
}

export interface YearPayment {
  readonly action: PaidAction;
  readonly accountId: number;
  /** Years that it buys. */
  readonly years: number;
  /** Years bought before it. */
  readonly after: number;
  readonly isNow: boolean;
  readonly minor: number;
}

export interface YearPath {
  readonly totalMinor: number;
  /** What has to be paid today. */
  readonly nowMinor: number;
  /** Years bought in all: as many as were wanted, or more. */
  readonly years: number;
  readonly payments: readonly YearPayment[];
}

interface Wanted {
  readonly held: Held;
  /** How many more years the name is to be held, 1 to 10. */
  readonly years: number;
  readonly prices: readonly YearPrices[];
  readonly terms: YearTerms;
  /** Only ways that begin with a transfer; of a name that is held. */
  readonly mustMove?: boolean;
}

/** One payment after those before it. */
interface Paid {
  readonly before: Paid | null;
  readonly payment: YearPayment;
}

/** The best way to so many years at one account. */
interface State {
  readonly years: number;
  /** The account's place in the prices; -1 before a new name is registered, or where its account has none. */
  readonly place: number;
  readonly accountId: number;
  readonly totalMinor: number;
  readonly moves: number;
  readonly nowMinor: number;
  readonly payments: number;
  readonly paid: Paid | null;
}

/** The best states by the years bought, then by the account's place. */
type Layers = (State | undefined)[][];

/** Two sums that differ only by how a computer adds. */
const TINY = 1e-6;

/**
 * Where two ways cost the same: fewer moves, then the later end, then what leaves the money longest with its owner (less paid now, in
 * more payments), then the account with the lower number.
 */
function isBetter(a: State, b: State | undefined): boolean {
  if (!b) return true;
  const by = a.totalMinor - b.totalMinor;
  if (by < -TINY || by > TINY) return by < 0;
  if (a.moves !== b.moves) return a.moves < b.moves;
  if (a.years !== b.years) return a.years > b.years;
  const now = a.nowMinor - b.nowMinor;
  if (now < -TINY || now > TINY) return now < 0;
  if (a.payments !== b.payments) return a.payments > b.payments;
  return a.accountId < b.accountId;
}

/**
 * The cheapest payments that carry a name from its paid-through end (a new one: from today) for 1, 2, 3 … up to `years` years or more,
 * over all `prices`; years beyond that are not credited. At each charge, and the first time today as well, it is renewed for a term or moved to
 * another account, which adds that account's transfer years and may be followed by a renewal there. A term never reaches more than
 * the ceiling from its payment: nine years before the end of a term, ten past it and for a new name. `null` where no account sells it
 * for so long. Source: contract for the ceiling; prices over years: common practice.
 */
export function cheapestPaths(wanted: Wanted): (YearPath | null)[] {
  const { held, years, terms } = wanted;
  const layers: Layers = [];
  takeFirstSteps(wanted, layers);
  const left = held.kind === 'new' ? 0 : held.yearsLeft;
  for (let bought = 1; bought < years; bought += 1) {
    const states = layers[bought]?.filter((state) => state !== undefined) ?? [];
    if (states.length === 0) continue;
    const when = { yearsFromNow: Math.max(0, Math.floor(left + bought)), isFirst: false };
    const step = stepAt(wanted, when, terms.ceilingYears - 1, false);
    for (const state of states) takeSteps(state, step, layers);
  }
  // Whatever reaches further is good for fewer years too.
  const paths: (YearPath | null)[] = [];
  let found: State | undefined;
  for (let bought = layers.length - 1; bought >= 1; bought -= 1) {
    for (const state of layers[bought] ?? []) if (state && isBetter(state, found)) found = state;
    if (bought <= years) paths[bought - 1] = found ? pathOf(found) : null;
  }
  return Array.from({ length: years }, (_, i) => paths[i] ?? null);
}

/** The cheapest payments for so many years or more; `null` where there are none. */
export function cheapestPath(wanted: Wanted): YearPath | null {
  return cheapestPaths(wanted).at(-1) ?? null;
}

function pathOf({ years, paid }: State): YearPath {
  const payments: YearPayment[] = [];
  for (let one = paid; one !== null; one = one.before)
    payments.unshift({ ...one.payment, minor: roundHalfAway(one.payment.minor) });
  const totalMinor = payments.reduce((sum, { minor }) => sum + minor, 0);
  const nowMinor = payments.reduce((sum, { isNow, minor }) => sum + (isNow ? minor : 0), 0);
  return { totalMinor, nowMinor, years, payments };
}

/** What everything costs at one time, asked for once for all states from which it may be paid. */
interface Step {
  readonly prices: readonly YearPrices[];
  readonly terms: YearTerms;
  /** The most years that may be added at once. */
  readonly most: number;
  /** Paid today. */
  readonly isNow: boolean;
  /** By the account's place, then by the place of the term. */
  readonly renew: readonly (readonly (number | null)[])[];
  readonly transfer: readonly (number | null)[];
  /** A renewal that follows a transfer is nobody's first payment. */
  readonly renewAfter: readonly (readonly (number | null)[])[];
}

function stepAt({ prices, terms }: Wanted, when: PaidWhen, most: number, isNow: boolean): Step {
  const renewals = (at: PaidWhen) =>
    prices.map((one) => terms.renew.map((years) => (years <= most ? one.pay('renew', years, at) : null)));
  const renew = renewals(when);
  return {
    prices,
    terms,
    most,
    isNow,
    renew,
    transfer: prices.map((one) => (one.transferYears <= most ? one.pay('transfer', one.transferYears, when) : null)),
    renewAfter: when.isFirst ? renewals({ ...when, isFirst: false }) : renew,
  };
}

/** The first payments: a registration today; else renewing or moving today, or at the charge of the running term. */
function takeFirstSteps(wanted: Wanted, layers: Layers): void {
  const { held, prices, terms } = wanted;
  const accountId = held.kind === 'new' ? -1 : held.accountId;
  const place = prices.findIndex((one) => one.accountId === accountId);
  const start: State = { years: 0, place, accountId, totalMinor: 0, moves: 0, nowMinor: 0, payments: 0, paid: null };
  if (held.kind === 'new') {
    const now = { yearsFromNow: 0, isFirst: true };
    for (const [at, one] of prices.entries())
      for (const years of terms.register) {
        if (years <= terms.ceilingYears)
          take(
            start,
            { place: at, movedMinor: null, action: 'register', years, minor: one.pay('register', years, now) },
            { prices, isNow: true },
            layers,
          );
      }
    return;
  }
  const first = (when: PaidWhen, most: number, isNow: boolean) => {
    const step = stepAt(wanted, when, most, isNow);
    takeSteps(start, wanted.mustMove ? { ...step, renew: [] } : step, layers);
  };
  // Those at the charge come first: what costs the same is not paid before its time.
  if (held.yearsLeft > 0) {
    const charge = { yearsFromNow: Math.floor(held.yearsLeft), isFirst: true };
    first(charge, terms.ceilingYears - 1, false);
  }
  const reach = Math.floor(terms.ceilingYears - Math.max(0, held.yearsLeft));
  first({ yearsFromNow: 0, isFirst: true }, reach, true);
}

/** Every way on from a state: a renewal where it is, or a move, alone where it adds years, and with a renewal there. */
function takeSteps(state: State, step: Step, layers: Layers): void {
  const { prices, terms, most } = step;
  for (let i = 0; i < terms.renew.length; i += 1)
    take(
      state,
      {
        place: state.place,
        movedMinor: null,
        action: 'renew',
        years: terms.renew[i] as number,
        minor: step.renew[state.place]?.[i] ?? null,
      },
      step,
      layers,
    );
  for (let place = 0; place < prices.length; place += 1) {
    const moved = step.transfer[place] ?? null;
    if (place === state.place || moved === null) continue;
    const { transferYears } = prices[place] as YearPrices;
    if (transferYears > 0) take(state, { place, movedMinor: moved, action: null, years: 0, minor: 0 }, step, layers);
    for (let i = 0; i < terms.renew.length; i += 1) {
      const years = terms.renew[i] as number;
      if (transferYears + years <= most)
        take(
          state,
          { place, movedMinor: moved, action: 'renew', years, minor: step.renewAfter[place]?.[i] ?? null },
          step,
          layers,
        );
    }
  }
}

/** A move to an account, or none, and what is paid there then. */
interface Way {
  readonly place: number;
  /** What the move costs; `null` without one. */
  readonly movedMinor: number | null;
  /** `null` for the move alone. */
  readonly action: 'register' | 'renew' | null;
  readonly years: number;
  /** `null` where it is not sold. */
  readonly minor: number | null;
}

/** Keeps where a way leads when that is better than what was found so far. Asked thousands of times for one name. */
function take(
  state: State,
  { place, movedMinor, action, years, minor }: Way,
  { prices, isNow }: Pick<Step, 'prices' | 'isNow'>,
  layers: Layers,
): void {
  if (minor === null) return;
  const { accountId, transferYears } = prices[place] as YearPrices;
  const added = (movedMinor === null ? 0 : transferYears) + years;
  const reached = state.years + added;
  const paid = (movedMinor ?? 0) + minor;
  const totalMinor = state.totalMinor + paid;
  let layer = layers[reached];
  if (layer === undefined) {
    layer = [];
    layers[reached] = layer;
  }
  const known = layer[place];
  if (known && totalMinor > known.totalMinor + TINY) return;
  const next: State = {
    years: reached,
    place,
    accountId,
    totalMinor,
    moves: state.moves + (movedMinor === null ? 0 : 1),
    nowMinor: state.nowMinor + (isNow ? paid : 0),
    payments: state.payments + (movedMinor === null ? 0 : 1) + (action === null ? 0 : 1),
    paid: state.paid,
  };
  if (!isBetter(next, known)) return;
  let last = state.paid;
  const pay = (what: PaidAction, bought: number, after: number, price: number) => {
    last = { before: last, payment: { action: what, accountId, years: bought, after, isNow, minor: price } };
  };
  if (movedMinor !== null) pay('transfer', transferYears, state.years, movedMinor);
  if (action !== null) pay(action, years, reached - years, minor);
  layer[place] = { ...next, paid: last };
}

/** Where the cheaper of two becomes the dearer one: the number of years, and which is cheaper from there on. */
export interface Crossing {
  readonly years: number;
  readonly cheaper: 'first' | 'second' | 'equal';
}

/**
 * Every number of years at which the cheaper of two changes, given what each costs for 1, 2, 3 … years; `null` where one is not sold
 * for so long, which changes nothing.
 */
export function crossings(first: readonly (number | null)[], second: readonly (number | null)[]): Crossing[] {
  const found: Crossing[] = [];
  let before: Crossing['cheaper'] | null = null;
  for (const [i, a] of first.entries()) {
    const b = second[i];
    if (a === null || b === null || b === undefined) continue;
    const cheaper = a === b ? 'equal' : a < b ? 'first' : 'second';
    if (before !== null && cheaper !== before) found.push({ years: i + 1, cheaper });
    before = cheaper;
  }
  return found;
}
