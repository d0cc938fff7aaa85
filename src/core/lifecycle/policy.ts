import { addDays, type Day, type Instant } from '../time';

/** Where a rule comes from. `memory` and `common practice` have no source to check against. */
export type RuleSource = 'standard' | 'contract' | 'common practice' | 'memory';

export const TERM_ACTIONS = ['register', 'renew', 'transfer', 'restore'] as const;
export type TermAction = (typeof TERM_ACTIONS)[number];

/** The whole years one action may buy: from `least` to `greatest` in steps of `step`. */
export interface TermRule {
  readonly least: number;
  readonly greatest: number;
  readonly step: number;
}

/**
 * The lifecycle of names under one ending. Periods are in days of 24 hours; 0 means that the period does not exist.
 * Everything here is data that people edit; each row says where it comes from.
 */
export interface Policy {
  /** A-label suffix (`com`, `co.uk`), or `*` for the generic rule that serves endings without a row. */
  readonly ending: string;
  readonly lateDays: number;
  readonly redemptionDays: number;
  readonly pendingRestoreDays: number;
  readonly pendingDeleteDays: number;
  readonly refundableDays: number;
  readonly terms: Readonly<Record<TermAction, TermRule>>;
  /** Years that a transfer adds to the term: 1 for generic endings, 0 for several country endings. */
  readonly transferYears: number;
  /** Days after registration or transfer in which a transfer is refused. */
  readonly transferLockDays: number;
  /** Days after a change of holder in which a transfer is refused, unless that was waived before the change. */
  readonly holderLockDays: number;
  /** Years from now beyond which no term may run. */
  readonly ceilingYears: number;
  /** Whether the yearly registry fee is added to registering, renewing and transferring. */
  readonly yearlyFee: boolean;
  /** Letters beyond a-z, 0-9 and the hyphen that its registry takes (RFC 5891 section 4.3), all in one text; `null` for what is known without the office. */
  readonly letters: string | null;
  readonly source: RuleSource;
  readonly sourceNote: string;
  readonly sourceDate: Day;
  readonly verified: boolean;
}

/** The yearly fee that generic endings add, in force from a day on. */
export interface RegistryFee {
  readonly from: Day;
  readonly minor: number;
  readonly currency: string;
  readonly source: RuleSource;
}

/** The policy for an ending: its own row, that of its last label (`co.uk` → `uk`), else the generic one. */
export function policyFor(ending: string, policies: ReadonlyMap<string, Policy>): Policy {
  const policy = policies.get(ending) ?? policies.get(ending.slice(ending.lastIndexOf('.') + 1)) ?? policies.get('*');
  if (!policy) throw new Error('the generic policy is missing');
  return policy;
}

/** The fee of one year in force on `day`, or `null` before the first row. */
export function registryFeeOn(fees: readonly RegistryFee[], day: Day): RegistryFee | null {
  let found: RegistryFee | null = null;
  for (const fee of fees) if (fee.from <= day && (found === null || fee.from > found.from)) found = fee;
  return found;
}

/**
 * Until when registrars may refuse to transfer a name that was registered or transferred, or changed its holder, `since`: as many days as
 * its ending's policy says (RFC 5731 leaves the period to the server). `null` where nobody knows since when, or there is no such period.
 */
export function transferLockEnds(since: Instant | null, days: number): Instant | null {
  return since === null || days === 0 ? null : addDays(since, days);
}
