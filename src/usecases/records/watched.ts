import { type Policy, policyFor } from '@/core/lifecycle';
import { holderOf, phaseOfStatuses, type RegistrationRecord, type Release, releaseOf } from '@/core/records';
import { selectPolicies } from '@/database/policies';
import { type StoredRecord, selectSightings } from '@/database/records';
import { selectWatches, updateWatches, type WatchedNow } from '@/database/watches';
import type { Deps } from '../deps';

/** When a name may come free, by its dated records and its ending's policy; `null` without a record. */
export async function releaseFor(deps: Deps, ascii: string, ending: string): Promise<Release | null> {
  const [sightings, policies] = await Promise.all([selectSightings(deps.database, [ascii]), policiesByEnding(deps)]);
  return releaseIn(sightings, policyFor(ending, policies));
}

export async function policiesByEnding(deps: Deps): Promise<Map<string, Policy>> {
  return new Map((await selectPolicies(deps.database)).map((policy) => [policy.ending, policy]));
}

/** A status began between the last sight without it and the first with it. `history` is of one name, newest first. */
export function releaseIn(history: readonly StoredRecord[], policy: Policy): Release | null {
  const [newest] = history;
  if (!newest) return null;
  const phase = phaseOfStatuses(newest.record.statuses);
  const run = history.findIndex(({ record }) => phaseOfStatuses(record.statuses) !== phase || !record.found);
  const first = history[(run < 0 ? history.length : run) - 1] ?? newest;
  const before = run < 0 ? null : (history[run]?.lastAt ?? null);
  return releaseOf(newest.record, policy, first.firstAt, before);
}

/** Recomputes when watched names come free after a check, and what has changed since the one before. */
export async function noteWatched(deps: Deps, ascii: readonly string[]): Promise<void> {
  const watches = await selectWatches(deps.database, ascii);
  if (watches.length === 0) return;
  const [sightings, policies] = await Promise.all([
    selectSightings(
      deps.database,
      watches.map((watch) => watch.ascii),
    ),
    policiesByEnding(deps),
  ]);
  const now = watches.flatMap((watch): WatchedNow[] => {
    const history = sightings.filter((one) => one.ascii === watch.ascii);
    const release = releaseIn(history, policyFor(watch.ending, policies));
    const newest = history[0];
    if (!newest || !release) return [];
    const standing = standingWords(newest.record);
    const { free: isFree, earliest, latest } = release;
    const change = watch.standing !== '' && watch.standing !== standing ? `${watch.standing} → ${standing}` : null;
    return [{ ascii: watch.ascii, isFree, earliest, latest, standing, change }];
  });
  await updateWatches(deps.database, now, deps.clock());
}

const PHASE_WORDS = {
  term: 'taken',
  provisional: 'past its term or just renewed',
  redemption: 'in redemption',
  'pending restore': 'being restored',
  'pending delete': 'pending delete',
} as const;

/** How a name stands by its record, in a few words. */
function standingWords(record: RegistrationRecord): string {
  if (!record.found) return 'available';
  const holder = holderOf(record);
  const at = record.registrar ? ` at ${record.registrar}` : '';
  return `${PHASE_WORDS[phaseOfStatuses(record.statuses)]}${at}${holder ? `, ${holder}` : ''}`;
}
