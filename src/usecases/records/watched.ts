import { policyFor } from '@/core/lifecycle';
import { holderOf, phaseOfStatuses, type RegistrationRecord, type Release, releaseOf } from '@/core/records';
import { selectPolicies } from '@/database/policies';
import { selectNewestRecords, selectRecordHistory } from '@/database/records';
import { selectWatches, updateWatch } from '@/database/watches';
import type { Deps } from '../deps';

/** When a name may come free, by its dated records and its ending's policy; `null` without a record. */
export async function releaseFor(deps: Deps, ascii: string, ending: string): Promise<Release | null> {
  const history = (await selectRecordHistory(deps.database, ascii)).filter(({ source }) => source !== 'registrar');
  const [newest] = history;
  if (!newest) return null;
  const policies = new Map((await selectPolicies(deps.database)).map((policy) => [policy.ending, policy]));
  // A status began between the last sight without it and the first with it.
  const phase = phaseOfStatuses(newest.record.statuses);
  const run = history.findIndex(({ record }) => phaseOfStatuses(record.statuses) !== phase || !record.found);
  const first = history[(run < 0 ? history.length : run) - 1] ?? newest;
  const before = run < 0 ? null : (history[run]?.lastAt ?? null);
  return releaseOf(newest.record, policyFor(ending, policies), first.firstAt, before);
}

/** Recomputes when watched names come free after a check, and what has changed since the one before. */
export async function noteWatched(deps: Deps, ascii: readonly string[]): Promise<void> {
  for (const watch of await selectWatches(deps.database, ascii)) {
    const records = await selectNewestRecords(deps.database, [watch.ascii]);
    const newest = records.filter(({ source }) => source !== 'registrar').sort((a, b) => b.lastAt - a.lastAt)[0];
    const release = await releaseFor(deps, watch.ascii, watch.ending);
    if (!newest || !release) continue;
    const standing = standingWords(newest.record);
    const changed = watch.standing !== '' && watch.standing !== standing;
    await updateWatch(deps.database, watch.ascii, {
      checkedAt: deps.clock(),
      isFree: release.free,
      earliest: release.earliest,
      latest: release.latest,
      standing,
      ...(changed ? { changedAt: deps.clock(), change: `${watch.standing} → ${standing}` } : {}),
    });
  }
}

const PHASE_WORDS = {
  term: 'taken',
  provisional: 'past its term or just renewed',
  redemption: 'in redemption',
  restoring: 'being restored',
  deleting: 'in deletion',
} as const;

/** How a name stands by its record, in a few words. */
function standingWords(record: RegistrationRecord): string {
  if (!record.found) return 'free';
  const holder = holderOf(record);
  const at = record.registrar ? ` at ${record.registrar}` : '';
  return `${PHASE_WORDS[phaseOfStatuses(record.statuses)]}${at}${holder ? `, ${holder}` : ''}`;
}
