import { isRefusal, type Refusal } from '@/core/refusal';
import { formatInstant } from '@/core/time';
import type { NamePatch, PatchedName } from '@/database/changes';
import {
  type DropRow,
  endDrops,
  type HangingOn,
  insertDrops,
  selectAutoRenewOf,
  selectBeforeDrop,
  selectDrops,
  selectHangingOn,
  selectKeptZone,
} from '@/database/drops';
import type { Done } from '../changing';
import type { Deps } from '../deps';
import { NOT_REQUESTED, REQUESTED } from '../names/edit';
import { seenZone } from '../records/records';
import { readRequest } from '../validate';
import { DropNames, KeepAfterAll } from './requests';

export type { DropRow } from '@/database/drops';

import { changing } from '../changing';
import { command } from '../people/command';

const countNames = (count: number) => (count === 1 ? 'one name' : `${count} names`);

/** What hangs on a name: what the ledger knows, and what the name server shows now; `null` where it was not asked. */
export interface Hanging extends HangingOn {
  readonly live: { readonly site: readonly string[]; readonly mail: readonly string[] } | null;
}

/** So many names at the most are looked at while somebody waits. */
const MOST_LOOKS = 20;

/** What hangs on names, before they are dropped. A name server that does not answer leaves what it would have said unknown. */
export async function hangingOn(deps: Deps, nameIds: readonly number[]): Promise<Hanging[]> {
  const known = await selectHangingOn(deps.database, nameIds);
  return Promise.all(
    known.map(async (one, i) => {
      const seen = i < MOST_LOOKS ? await seenZone(deps, one.ascii) : null;
      if (seen === null || isRefusal(seen)) return { ...one, live: null };
      const of = (type: string) => [
        ...new Set(
          seen.zone.records.filter((record) => record.type === type).map(({ data }) => data.replace(/^\d+ |\.$/g, '')),
        ),
      ];
      return { ...one, live: { site: [...of('A'), ...of('AAAA')], mail: of('MX') } };
    }),
  );
}

/** Every name that is being dropped. */
export function dropping(deps: Deps): Promise<DropRow[]> {
  return selectDrops(deps.database);
}

/** The zone that was kept of a name, or `null`. */
export function keptZone(deps: Deps, nameId: number): Promise<string | null> {
  return selectKeptZone(deps.database, nameId);
}

/**
 * Drops names: auto-renew is asked to be off at their registrars, the reason is kept, and nothing nags about them any more.
 * Until the registrar has confirmed, the switch stays asked.
 */
export const dropNames = command('dropNames', async (deps: Deps, input: unknown): Promise<Done | Refusal> => {
  const request = await readRequest(DropNames, input);
  if (isRefusal(request)) return request;
  const { nameIds, reason, zone, checked } = request;
  const at = deps.clock();
  const summary = `Dropped ${countNames(nameIds.length)}: ${reason}`;
  return changing(deps, async (tx, { names }) => {
    await insertDrops(tx, at, { reason, zone: zone?.trim() || null, checked: checked ?? [] }, nameIds);
    const before = await selectAutoRenewOf(tx, nameIds);
    return names(
      'drop',
      summary,
      nameIds.map((nameId): PatchedName => {
        const off: NamePatch = before.get(nameId) === 'off' ? {} : REQUESTED['auto-renew']('off', formatInstant(at));
        const decided = { purpose: 'drop', rescue_verdict: null, rescue_for: null };
        return { nameId, patch: { ...decided, ...off }, evidence: reason };
      }),
    );
  });
});

/** The way back: names are kept after all, for what they were kept before, with auto-renew asked on again where it was on. */
export const keepAfterAll = command('keepAfterAll', async (deps: Deps, input: unknown): Promise<Done | Refusal> => {
  const request = await readRequest(KeepAfterAll, input);
  if (isRefusal(request)) return request;
  const at = deps.clock();
  const summary = `Kept after all: ${countNames(request.nameIds.length)}`;
  return changing(deps, async (tx, { names }) => {
    const before = await selectBeforeDrop(tx, request.nameIds);
    const kept = await names(
      'keep',
      summary,
      before.map(({ nameId, purpose, setting, settingNow }): PatchedName => {
        const isOnAgain = setting === 'on' && settingNow === 'off';
        const asked: NamePatch = isOnAgain
          ? REQUESTED['auto-renew']('on', formatInstant(at))
          : NOT_REQUESTED['auto-renew'];
        return { nameId, patch: { purpose, ...asked } };
      }),
    );
    await endDrops(tx, request.nameIds, at, 'taken back');
    return kept;
  });
});
