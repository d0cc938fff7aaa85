import type { RestoreReport } from '@/connectors/registrar/port';
import { everyRow } from '@/core/ledger';
import { formatInstant, formatTermEnd } from '@/core/time';
import { selectNameServers } from '@/database/names';
import type { ReportWords } from '@/database/runs';
import type { Deps } from '../deps';
import { projectedLedger } from '../names/ledger';

export type { RestoreReport } from '@/connectors/registrar/port';

/** The certifications that RFC 3915 section 3.4 asks of a registrar, here of the owner through it. */
export const STATEMENTS: readonly [string, string] = [
  'This registrar has not restored the Registered Name in order to assume the rights to use or sell the Registered Name for itself or for any third party.',
  'The information in this report is true to best of this registrar’s knowledge, and this registrar acknowledges that intentionally supplying false information in this report shall constitute an incurable material breach of the Registry-Registrar Agreement.',
];

export const USUAL_REASON = 'The holder missed the end of the term and wants to keep the name.';

/** The restore report of each name, written from what the ledger knows (RFC 3915 section 4.2.5). */
export async function restoreReports(
  deps: Deps,
  nameIds: readonly number[],
  words: ReportWords,
): Promise<Map<number, RestoreReport>> {
  if (nameIds.length === 0) return new Map();
  const [projection, servers] = await Promise.all([
    projectedLedger(deps, nameIds),
    selectNameServers(deps.database, nameIds),
  ]);
  return new Map(
    everyRow(projection).map(({ name, marks }) => {
      const hosts = servers.get(name.id) ?? [];
      const registration = [
        name.ascii,
        name.registered ? `registered ${formatTermEnd(name.registered)}` : null,
        name.termEnd ? `paid through ${formatTermEnd(name.termEnd)}` : null,
        hosts.length > 0 ? `name servers ${hosts.join(' ')}` : null,
      ]
        .filter(Boolean)
        .join(', ');
      const restoredAt = name.observed?.phase === 'pending restore' ? name.observed.at : projection.asOf;
      const report: RestoreReport = {
        preData: registration,
        postData: registration,
        delTime: formatInstant(marks?.deletion ?? restoredAt),
        resTime: formatInstant(restoredAt),
        resReason: words.reason,
        statements: STATEMENTS,
        other: words.other,
      };
      return [name.id, report] as const;
    }),
  );
}
