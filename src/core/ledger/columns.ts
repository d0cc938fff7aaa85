import { AUTO_RENEW_SETTINGS, STANDINGS } from '../funding';
import type { ObservedPhase } from '../lifecycle';
import type { Amount } from '../money';
import { Dictionary } from '../table';
import type { TermEnd } from '../time';
import { type LedgerName, PURPOSES } from './data';

/** What only few names have, by the name's place. */
export interface SparseColumns {
  readonly unicode: Readonly<Record<number, string>>;
  readonly observed: Readonly<Record<number, { phase: ObservedPhase['phase']; at: number }>>;
  readonly stalledBy: Readonly<Record<number, string>>;
  readonly confirmMailBy: Readonly<Record<number, number>>;
  readonly saleChance: Readonly<Record<number, number>>;
  readonly bestOffer: Readonly<Record<number, Amount>>;
  readonly transferred: Readonly<Record<number, { at: number; day: boolean }>>;
  readonly holderChanged: Readonly<Record<number, { at: number; day: boolean; waived: boolean }>>;
  readonly gracePaid: Readonly<Record<number, number>>;
  readonly notes: Readonly<Record<number, string>>;
}

/**
 * The names of a ledger in columns, in the order of their A-labels: the form in which they are stored, travel and are reckoned with.
 * A name's place is its row in all of them. Instants are milliseconds, `NaN` where unknown; amounts are minor units, `NaN` for none.
 */
export interface LedgerColumns {
  /** A-labels, each followed by a line feed. */
  readonly ascii: string;
  readonly id: Int32Array;
  readonly accountId: Int32Array;
  readonly endings: readonly string[];
  readonly ending: Uint16Array;
  /** Several small facts of a name, packed: see `FLAGS`. */
  readonly flags: Int32Array;
  readonly registered: Float64Array;
  readonly termEnd: Float64Array;
  readonly settingSince: Float64Array;
  readonly checkedAt: Float64Array;
  readonly currencies: readonly string[];
  readonly asking: Float64Array;
  readonly askingCurrency: Uint8Array;
  /** What was spent on names, one line for each currency of a name, ordered by place. */
  readonly spent: { readonly place: Int32Array; readonly minor: Float64Array; readonly currency: Uint8Array };
  /** The lists of tags that there are, and which of them each name has; the same of its statuses. */
  readonly tagLists: readonly (readonly string[])[];
  readonly tags: Int32Array;
  readonly statusLists: readonly (readonly string[])[];
  readonly statuses: Int32Array;
  readonly sparse: SparseColumns;
}

/** The values of what is yes, no, or not known; and of what may have been requested. */
const KNOWN = [null, false, true] as const;
const REQUESTED = [null, 'on', 'off'] as const;
const RESCUE = [null, 'keep', 'drop'] as const;
const PLAIN = [false, true] as const;

/** Where each small fact stands in `LedgerColumns.flags`: so many bits from one on, its value as an index of `values`. */
export const FLAGS = {
  setting: { from: 0, bits: 2, values: AUTO_RENEW_SETTINGS },
  standing: { from: 2, bits: 2, values: STANDINGS },
  purpose: { from: 4, bits: 2, values: PURPOSES },
  neverLost: { from: 6, bits: 1, values: PLAIN },
  lock: { from: 7, bits: 2, values: KNOWN },
  privacy: { from: 9, bits: 2, values: KNOWN },
  registeredDay: { from: 11, bits: 1, values: PLAIN },
  termEndDay: { from: 12, bits: 1, values: PLAIN },
  requested: { from: 13, bits: 2, values: REQUESTED },
  requestedLock: { from: 15, bits: 2, values: REQUESTED },
  requestedPrivacy: { from: 17, bits: 2, values: REQUESTED },
  rescue: { from: 19, bits: 2, values: RESCUE },
} as const;
type Flag = keyof typeof FLAGS;
export type FlagValue<F extends Flag> = (typeof FLAGS)[F]['values'][number];

/** The number of a small fact's value: its index in `FLAGS[fact].values`. */
export function flagCode(flags: number, fact: Flag): number {
  const { from, bits } = FLAGS[fact];
  return (flags >> from) & ((1 << bits) - 1);
}

/** The same for what is asked of every name: reads it from the flags of one. */
export function flagReader(fact: Flag): (flags: number) => number {
  const { from, bits } = FLAGS[fact];
  const mask = (1 << bits) - 1;
  return (flags) => (flags >> from) & mask;
}

/** The value of a small fact. */
export function flagValue<F extends Flag>(flags: number, fact: F): FlagValue<F> {
  return FLAGS[fact].values[flagCode(flags, fact)] as FlagValue<F>;
}

function packed(values: { readonly [F in Flag]: FlagValue<F> }): number {
  let flags = 0;
  for (const fact of Object.keys(FLAGS) as Flag[]) {
    const index = (FLAGS[fact].values as readonly unknown[]).indexOf(values[fact]);
    if (index < 0) throw new RangeError(`${fact} has no value ${String(values[fact])}`);
    flags |= index << FLAGS[fact].from;
  }
  return flags;
}

/** Puts names into columns; they come in the order of their A-labels. */
export function columnsOf(names: readonly LedgerName[]): LedgerColumns {
  const [endings, currencies] = [new Dictionary<string>(), new Dictionary<string>()];
  const [tagLists, statusLists] = [new Dictionary<readonly string[]>(), new Dictionary<readonly string[]>()];
  const list = (dictionary: Dictionary<readonly string[]>, one: readonly string[]) =>
    dictionary.code(JSON.stringify(one), () => one);
  const word = (dictionary: Dictionary<string>, one: string) => dictionary.code(one, () => one);
  const at = (end: TermEnd | null) => end?.at ?? Number.NaN;
  const spent = names.flatMap((name, place) => name.spent.map((amount) => ({ place, ...amount })));
  const sparse = <T>(of: (name: LedgerName) => T | null): Record<number, T> => {
    const found: Record<number, T> = {};
    for (const [place, name] of names.entries()) {
      const value = of(name);
      if (value !== null) found[place] = value;
    }
    return found;
  };
  const dated = (end: TermEnd | null) => end && { at: end.at as number, day: end.precision === 'day' };
  return {
    ascii: names.map(({ ascii }) => `${ascii}\n`).join(''),
    id: Int32Array.from(names, ({ id }) => id),
    accountId: Int32Array.from(names, ({ accountId }) => accountId),
    endings: endings.values,
    ending: Uint16Array.from(names, ({ ending }) => word(endings, ending)),
    flags: Int32Array.from(names, (name) =>
      packed({
        ...name,
        registeredDay: name.registered?.precision === 'day',
        termEndDay: name.termEnd?.precision === 'day',
      }),
    ),
    registered: Float64Array.from(names, ({ registered }) => at(registered)),
    termEnd: Float64Array.from(names, ({ termEnd }) => at(termEnd)),
    settingSince: Float64Array.from(names, ({ settingSince }) => settingSince ?? Number.NaN),
    checkedAt: Float64Array.from(names, ({ checkedAt }) => checkedAt ?? Number.NaN),
    currencies: currencies.values,
    asking: Float64Array.from(names, ({ asking }) => asking?.minor ?? Number.NaN),
    askingCurrency: Uint8Array.from(names, ({ asking }) => (asking ? word(currencies, asking.currency) : 0)),
    spent: {
      place: Int32Array.from(spent, ({ place }) => place),
      minor: Float64Array.from(spent, ({ minor }) => minor),
      currency: Uint8Array.from(spent, ({ currency }) => word(currencies, currency)),
    },
    tagLists: tagLists.values,
    tags: Int32Array.from(names, ({ tags }) => list(tagLists, tags)),
    statusLists: statusLists.values,
    statuses: Int32Array.from(names, ({ statuses }) => list(statusLists, statuses)),
    sparse: {
      unicode: sparse(({ unicode, ascii }) => (unicode === ascii ? null : unicode)),
      observed: sparse(({ observed }) => observed),
      stalledBy: sparse(({ stalledBy }) => stalledBy),
      confirmMailBy: sparse(({ confirmMailBy }) => confirmMailBy),
      saleChance: sparse(({ saleChance }) => saleChance),
      bestOffer: sparse(({ bestOffer }) => bestOffer),
      transferred: sparse(({ transferred }) => dated(transferred)),
      holderChanged: sparse(({ holderChanged, holderLockWaived: waived }) => {
        const changed = dated(holderChanged);
        return changed && { ...changed, waived };
      }),
      gracePaid: sparse(({ gracePaid }) => gracePaid),
      notes: sparse(({ notes }) => (notes === '' ? null : notes)),
    },
  };
}
