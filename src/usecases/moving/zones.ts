import { lookAtSite } from '@/connectors/http/site';
import { compareZones, OVER_MOVES } from '@/core/moving';
import { isRefusal, type Refusal, refuse } from '@/core/refusal';
import { selectSettings } from '@/database/settings';
import { moveTransfers, selectTransfer, selectZones } from '@/database/transfers';
import { readZone } from '@/formats/zone/readZone';
import { writeZone, type Zone, type ZoneRecord } from '@/formats/zone/zoneFile';
import { changing } from '../changing';
import type { Deps } from '../deps';
import { command } from '../people/command';

/** The zone of a name before and after its transfer, and what differs. */
export interface ZonesOfTransfer {
  /** As a master file; `null` where it was not copied. */
  readonly before: string | null;
  readonly lost: readonly ZoneRecord[];
  readonly came: readonly ZoneRecord[];
  /** It has been looked at again since. */
  readonly isCompared: boolean;
}

/** The records of a master file that this program wrote or took in. */
function recordsIn(text: string, origin: string): readonly ZoneRecord[] {
  const zone = readZone(text, origin);
  return isRefusal(zone) ? [] : zone.records;
}

/** What differs between a zone that was copied and what is seen now. */
export function zoneDifference(before: string, now: Zone) {
  return compareZones(recordsIn(before, now.origin), now.records);
}

/** What has gone and come, in words; `null` where nothing has. */
export function differenceWords({ lost, came }: Pick<ZonesOfTransfer, 'lost' | 'came'>): string | null {
  const some = (count: number) => (count === 1 ? 'one record' : `${count} records`);
  if (lost.length === 0 && came.length === 0) return null;
  const parts = [lost.length > 0 && `${some(lost.length)} missing`, came.length > 0 && `${some(came.length)} new`];
  return `Its zone differs from before: ${parts.filter(Boolean).join(', ')}.`;
}

export async function zonesOfTransfer(deps: Deps, id: number): Promise<ZonesOfTransfer | Refusal> {
  const transfer = await selectTransfer(deps.database, id);
  if (!transfer) return refuse('transfer-unknown', 'This transfer is no longer there. Load the page again.');
  const { before = null, after = null } = (await selectZones(deps.database, [id])).get(id) ?? {};
  const difference =
    before !== null && after !== null
      ? zoneDifference(before, { origin: transfer.ascii, records: recordsIn(after, transfer.ascii) })
      : { lost: [], came: [] };
  return { before, ...difference, isCompared: after !== null };
}

/** Takes in the zone file of the old account: it holds what nobody could ask name servers for. */
export const bringZone = command(
  'bringZone',
  async (deps: Deps, id: number, text: string): Promise<number | Refusal> => {
    const transfer = await selectTransfer(deps.database, id);
    if (!transfer || OVER_MOVES.includes(transfer.stage))
      return refuse('transfer-unknown', 'This transfer is over. Load the page again.');
    const zone = readZone(text, transfer.ascii);
    if (isRefusal(zone)) return zone;
    const { stage, problem } = transfer;
    const patch = { zone: writeZone(zone), zone_note: 'The zone file of the old account.' };
    await changing(deps, (tx, { at }) => moveTransfers(tx, [{ id, from: stage, to: stage, problem, patch }], at));
    return zone.records.length;
  },
);

/** How the site of a name answers, at the address that its zone shows; `null` where it has none, or none that may be asked. */
export async function siteOf(deps: Deps, { origin, records }: Zone): Promise<string | null> {
  const address = records.find(({ name, type }) => name === '@' && type === 'A')?.data;
  if (address === undefined) return null;
  const { allowedHosts } = (await selectSettings(deps.database)).records;
  return lookAtSite(address, origin, { allowedHosts });
}

/** What has become of a site; `null` where nothing has, or it was not asked. */
export function siteWords(before: string | null, now: string | null): string | null {
  return before === null || now === null || before === now ? null : `Its site: ${before} before, ${now} now.`;
}
