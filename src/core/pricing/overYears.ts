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
}

interface State {
  readonly years: number;
  readonly accountId: number;
  readonly totalMinor: number;
  readonly moves: number;
  readonly payments: readonly YearPayment[];
}

/** Two sums that differ only by how a computer adds. */
const same = (a: number, b: number) => Math.abs(a - b) < 1e-6;

const paidNow = ({ payments }: Pick<State, 'payments'>) =>
  payments.reduce((sum, { isNow, minor }) => sum + (isNow ? minor : 0), 0);

/**
 * Where two ways cost the same: fewer moves, then the later end, then what leaves the money longest with its owner (less paid now, in
 * more payments), then the account with the lower number.
 */
function isBetter(a: State, b: State | undefined): boolean {
  if (!b) return true;
  const [by] = [
    same(a.totalMinor, b.totalMinor) ? 0 : a.totalMinor - b.totalMinor,
    a.moves - b.moves,
    b.years - a.years,
    same(paidNow(a), paidNow(b)) ? 0 : paidNow(a) - paidNow(b),
    b.payments.length - a.payments.length,
    a.accountId - b.accountId,
  ].filter((difference) => difference !== 0);
  return by !== undefined && by < 0;
}

/**
 * The cheapest payments that carry a name from its paid-through end (a new one: from today) for 1, 2, 3 … up to `years` years or more,
 * over all `prices`; years beyond that are not credited. At each charge, and the first time today as well, it is renewed for a term or moved to
 * another account, which adds that account's transfer years and may be followed by a renewal there. A term never reaches more than
 * the ceiling from its payment: nine years before the end of a term, ten past it and for a new name. `null` where no account sells it
 * for so long. Source: contract for the ceiling; prices over years: common practice.
 */
export function cheapestPaths(wanted: Wanted): (YearPath | null)[] {
  const { held, years, prices, terms } = wanted;
  const byAccount = new Map(prices.map((one) => [one.accountId, one]));
  /** The best state for each number of years bought, by account. */
  const best: Map<number, State>[] = [];
  const keep = (state: State) => {
    best[state.years] ??= new Map();
    const layer = best[state.years] as Map<number, State>;
    if (isBetter(state, layer.get(state.accountId))) layer.set(state.accountId, state);
  };
  for (const first of firstSteps(wanted, byAccount)) keep(first);
  const left = held.kind === 'new' ? 0 : held.yearsLeft;
  for (let bought = 1; bought < years; bought += 1) {
    const when = { yearsFromNow: Math.max(0, Math.floor(left + bought)), isFirst: false };
    const step = { prices, byAccount, terms, most: terms.ceilingYears - 1, when, isNow: false };
    for (const state of best[bought]?.values() ?? []) for (const next of stepsFrom(state, step)) keep(next);
  }
  // Whatever reaches further is good for fewer years too.
  const paths: (YearPath | null)[] = [];
  let found: State | undefined;
  for (let bought = best.length - 1; bought >= 1; bought -= 1) {
    for (const state of best[bought]?.values() ?? []) if (isBetter(state, found)) found = state;
    if (bought <= years) paths[bought - 1] = found ? pathOf(found) : null;
  }
  return Array.from({ length: years }, (_, i) => paths[i] ?? null);
}

/** The cheapest payments for so many years or more; `null` where there are none. */
export function cheapestPath(wanted: Wanted): YearPath | null {
  return cheapestPaths(wanted).at(-1) ?? null;
}

function pathOf({ years, payments }: State): YearPath {
  const told = payments.map((payment) => ({ ...payment, minor: roundHalfAway(payment.minor) }));
  const totalMinor = told.reduce((sum, { minor }) => sum + minor, 0);
  return { totalMinor, nowMinor: paidNow({ payments: told }), years, payments: told };
}

interface Step {
  readonly prices: readonly YearPrices[];
  readonly byAccount: ReadonlyMap<number, YearPrices>;
  readonly terms: YearTerms;
  /** The most years that may be added at once. */
  readonly most: number;
  readonly when: PaidWhen;
  /** Paid today. */
  readonly isNow: boolean;
}

/** The first payments: a registration today; else renewing or moving today, or at the charge of the running term. */
function firstSteps({ held, prices, terms }: Wanted, byAccount: ReadonlyMap<number, YearPrices>): State[] {
  const now = { yearsFromNow: 0, isFirst: true };
  if (held.kind === 'new')
    return prices.flatMap((one) =>
      terms.register.flatMap((years) => {
        const minor = years > terms.ceilingYears ? null : one.pay('register', years, now);
        const payment = { action: 'register' as const, accountId: one.accountId, years, after: 0, isNow: true };
        return minor === null
          ? []
          : [{ years, accountId: one.accountId, totalMinor: minor, moves: 0, payments: [{ ...payment, minor }] }];
      }),
    );
  const start: State = { years: 0, accountId: held.accountId, totalMinor: 0, moves: 0, payments: [] };
  const common = { prices, byAccount, terms };
  const reach = Math.floor(terms.ceilingYears - Math.max(0, held.yearsLeft));
  const today = stepsFrom(start, { ...common, most: reach, when: now, isNow: true });
  if (held.yearsLeft <= 0) return today;
  const charge = { yearsFromNow: Math.floor(held.yearsLeft), isFirst: true };
  // Those at the charge come first: what costs the same is not paid before its time.
  return [...stepsFrom(start, { ...common, most: terms.ceilingYears - 1, when: charge, isNow: false }), ...today];
}

/** Every way on from a state: a renewal where it is, or a move, alone where it adds years, and with a renewal there. */
function stepsFrom(state: State, { prices, byAccount, terms, most, when, isNow }: Step): State[] {
  const found: State[] = [];
  const add = (payments: readonly Omit<YearPayment, 'after' | 'isNow'>[]) => {
    let { years, totalMinor, moves } = state;
    const paid = payments.map((payment): YearPayment => {
      const whole = { ...payment, after: years, isNow };
      years += payment.years;
      totalMinor += payment.minor;
      moves += payment.action === 'transfer' ? 1 : 0;
      return whole;
    });
    const accountId = payments.at(-1)?.accountId ?? state.accountId;
    found.push({ years, accountId, totalMinor, moves, payments: [...state.payments, ...paid] });
  };
  const own = byAccount.get(state.accountId);
  for (const years of terms.renew) {
    const minor = own && years <= most ? own.pay('renew', years, when) : null;
    if (minor !== null) add([{ action: 'renew', accountId: state.accountId, years, minor }]);
  }
  for (const other of prices) {
    if (other.accountId === state.accountId || other.transferYears > most) continue;
    const moved = other.pay('transfer', other.transferYears, when);
    if (moved === null) continue;
    const move = { action: 'transfer' as const, accountId: other.accountId, years: other.transferYears, minor: moved };
    if (other.transferYears > 0) add([move]);
    for (const years of terms.renew) {
      const minor = other.transferYears + years <= most ? other.pay('renew', years, { ...when, isFirst: false }) : null;
      if (minor !== null) add([move, { action: 'renew', accountId: other.accountId, years, minor }]);
    }
  }
  return found;
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
