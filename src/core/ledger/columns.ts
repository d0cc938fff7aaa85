import type { AutoRenewSetting, Standing } from '../funding';
import type { ObservedPhase } from '../lifecycle';
import type { EppStatus } from '../records';
import type { Instant } from '../time';
import type { LedgerName, Purpose } from './data';

/**
 * The names of a ledger as columns: the compact form in which they travel. Instants are milliseconds; `termEndDay` and
 * `registeredDay` say that only a date is known. A sparse column is keyed by the row's place.
 */
export interface LedgerColumns {
  readonly id: readonly number[];
  readonly ascii: readonly string[];
  readonly ending: readonly string[];
  readonly accountId: readonly number[];
  readonly registered: readonly (number | null)[];
  readonly registeredDay: readonly boolean[];
  readonly termEnd: readonly (number | null)[];
  readonly termEndDay: readonly boolean[];
  readonly setting: readonly AutoRenewSetting[];
  readonly standing: readonly Standing[];
  readonly settingSince: readonly (number | null)[];
  readonly purpose: readonly Purpose[];
  readonly neverLost: readonly boolean[];
  readonly lock: readonly (boolean | null)[];
  readonly privacy: readonly (boolean | null)[];
  readonly asking: readonly (number | null)[];
  readonly askingCurrency: readonly (string | null)[];
  readonly checkedAt: readonly (number | null)[];
  readonly sparse: {
    readonly unicode: Readonly<Record<number, string>>;
    readonly observed: Readonly<Record<number, { phase: ObservedPhase['phase']; at: number }>>;
    readonly requested: Readonly<Record<number, 'on' | 'off'>>;
    readonly requestedLock: Readonly<Record<number, 'on' | 'off'>>;
    readonly requestedPrivacy: Readonly<Record<number, 'on' | 'off'>>;
    readonly stalledBy: Readonly<Record<number, string>>;
    readonly confirmMailBy: Readonly<Record<number, number>>;
    readonly rescue: Readonly<Record<number, 'keep' | 'drop'>>;
    readonly saleChance: Readonly<Record<number, number>>;
    readonly bestOffer: Readonly<Record<number, { minor: number; currency: string }>>;
    readonly transferred: Readonly<Record<number, { at: number; day: boolean }>>;
    readonly holderChanged: Readonly<Record<number, { at: number; day: boolean; waived: boolean }>>;
    readonly gracePaid: Readonly<Record<number, number>>;
    readonly statuses: Readonly<Record<number, readonly EppStatus[]>>;
    readonly tags: Readonly<Record<number, readonly string[]>>;
    readonly notes: Readonly<Record<number, string>>;
    readonly spent: Readonly<Record<number, readonly { minor: number; currency: string }[]>>;
  };
}

const NONE: readonly never[] = [];

/** Puts the columns together into one plain object for each name, in their order. */
export function namesFromColumns(columns: LedgerColumns): LedgerName[] {
  const { sparse } = columns;
  const end = (at: number | null | undefined, day: boolean | undefined) =>
    at === null || at === undefined
      ? null
      : { at: at as Instant, precision: day ? ('day' as const) : ('instant' as const) };
  return columns.id.map((id, i): LedgerName => {
    const ascii = columns.ascii[i] as string;
    const asking = columns.asking[i];
    const currency = columns.askingCurrency[i];
    const [transferred, holderChanged] = [sparse.transferred[i], sparse.holderChanged[i]];
    return {
      id,
      ascii,
      unicode: sparse.unicode[i] ?? ascii,
      ending: columns.ending[i] as string,
      accountId: columns.accountId[i] as number,
      registered: end(columns.registered[i], columns.registeredDay[i]),
      termEnd: end(columns.termEnd[i], columns.termEndDay[i]),
      observed: (sparse.observed[i] as ObservedPhase | undefined) ?? null,
      setting: columns.setting[i] as AutoRenewSetting,
      standing: columns.standing[i] as Standing,
      settingSince: (columns.settingSince[i] ?? null) as Instant | null,
      requested: sparse.requested[i] ?? null,
      requestedLock: sparse.requestedLock[i] ?? null,
      requestedPrivacy: sparse.requestedPrivacy[i] ?? null,
      stalledBy: sparse.stalledBy[i] ?? null,
      confirmMailBy: (sparse.confirmMailBy[i] ?? null) as Instant | null,
      purpose: columns.purpose[i] as Purpose,
      neverLost: columns.neverLost[i] as boolean,
      lock: columns.lock[i] ?? null,
      privacy: columns.privacy[i] ?? null,
      transferred: end(transferred?.at, transferred?.day),
      holderChanged: end(holderChanged?.at, holderChanged?.day),
      holderLockWaived: holderChanged?.waived ?? false,
      gracePaid: (sparse.gracePaid[i] ?? null) as Instant | null,
      statuses: sparse.statuses[i] ?? NONE,
      tags: sparse.tags[i] ?? NONE,
      notes: sparse.notes[i] ?? '',
      asking: asking === null || asking === undefined || !currency ? null : { minor: asking, currency },
      spent: sparse.spent[i] ?? NONE,
      checkedAt: (columns.checkedAt[i] ?? null) as Instant | null,
      rescue: sparse.rescue[i] ?? null,
      saleChance: sparse.saleChance[i] ?? null,
      bestOffer: sparse.bestOffer[i] ?? null,
    };
  });
}
