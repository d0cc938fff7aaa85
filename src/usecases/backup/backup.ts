import { isRefusal, type Refusal, refuse } from '@/core/refusal';
import { formatInstant } from '@/core/time';
import { clearLedger, isEmptyLedger, lackingTables, readLedger, restoreRows, settleRestored } from '@/database/backup';
import { everyRow, tableNow } from '@/database/backupVersion1';
import { allowMinutes, type Transaction } from '@/database/pool';
import { type BackupHead, DamagedBackup, readBackup } from '@/formats/backup/readBackup';
import { changing } from '../changing';
import type { Deps } from '../deps';
import { command } from '../people/command';

/** What a backup file says it is. The version rises when a member changes its meaning. */
const FORMAT = 'name-ledger backup';
const VERSION = 2;
/** The version before this one is read too, in the words of today. */
const EARLIER = 1;

async function* pieces(deps: Deps): AsyncGenerator<string | Buffer> {
  for await (const state of readLedger(deps.database)) {
    yield `{"format":"${FORMAT}","version":${VERSION},"madeAt":"${formatInstant(deps.clock())}","rows":${JSON.stringify(state.counts)},"tables":{`;
    let isFirst = true;
    for await (const { table, lines } of state.tables()) {
      yield `${isFirst ? '' : ','}\n"${table}":[\n`;
      isFirst = false;
      yield* lines;
      yield ']';
    }
    yield '}}\n';
  }
}

/** The whole ledger as one JSON text, piece by piece, all of one moment; docs/backup.md tells its members. */
export const makeBackup = command('makeBackup', async (deps: Deps) => pieces(deps));

const damaged = (why: string) =>
  refuse('backup-not-restored', `This backup is damaged (${why}), and nothing of it was restored. Try another copy.`);

/**
 * Restores a backup into an empty ledger as it comes in: all of it, or nothing. Answers how many names it held. Refused: what
 * is no backup, one of another version, one that lacks tables or rows, a ledger that is not empty.
 */
export const restoreBackup = command(
  'restoreBackup',
  async (deps: Deps, source: AsyncIterable<Uint8Array>): Promise<number | Refusal> => {
    try {
      return await changing(deps, async (tx) => {
        await allowMinutes(tx, 30);
        const restored = await restoreInto(tx, source);
        // What was written so far is taken back with the refusal.
        if (isRefusal(restored)) throw new NotRestored(restored);
        return restored;
      });
    } catch (error) {
      if (error instanceof NotRestored) return error.refusal;
      if (error instanceof DamagedBackup) return damaged(error.message);
      const { code = '' } = error as { code?: string };
      // Classes of SQLSTATE that speak of what stands in the file: data, constraints, limits of a value.
      if (!/^(22|23|54)/.test(code)) throw error;
      deps.log.warn({ err: error }, 'a backup could not be restored');
      return damaged('a row in it does not fit');
    }
  },
);

class NotRestored extends Error {
  constructor(readonly refusal: Refusal) {
    super(refusal.message);
  }
}

async function restoreInto(tx: Transaction, source: AsyncIterable<Uint8Array>): Promise<number | Refusal> {
  const counts = new Map<string, number>();
  let said: BackupHead['rows'];
  let isEarlier = false;
  const networks = new Map<unknown, string>();
  for await (const piece of piecesOf(source)) {
    if (piece.kind === 'head') {
      const refused = refuseHead(piece.head);
      if (refused) return refused;
      if (!(await isEmptyLedger(tx)))
        return refuse(
          'ledger-not-empty',
          'A backup goes into an empty ledger only. Empty this one first, under Setup → Ledger.',
        );
      await clearLedger(tx);
      isEarlier = piece.head.version === EARLIER;
      said = isEarlier ? inTodaysNames(piece.head.rows) : piece.head.rows;
      continue;
    }
    const table = isEarlier ? tableNow(piece.table) : piece.table;
    counts.set(table, (counts.get(table) ?? 0) + piece.rows.length);
    await restoreRows(tx, table, isEarlier ? everyRow(piece.table, piece.rows, networks) : piece.rows);
  }
  const lacking = lackingTables(new Set(counts.keys()));
  if (lacking.length > 0) return damaged(`it lacks ${lacking.join(', ')}`);
  const short = Object.entries(said ?? {}).find(([table, rows]) => counts.get(table) !== rows);
  if (short) return damaged(`${short[0]} should have ${short[1]} rows`);
  return (await settleRestored(tx)) ?? damaged('its generic policy is missing');
}

/** How many rows each table has, by the names that tables have today. */
function inTodaysNames(rows: BackupHead['rows']): BackupHead['rows'] {
  return rows && Object.fromEntries(Object.entries(rows).map(([table, count]) => [tableNow(table), count]));
}

/** The pieces of a file; one that is no backup from its first line on is refused as such. */
async function* piecesOf(source: AsyncIterable<Uint8Array>): ReturnType<typeof readBackup> {
  let isBackup = false;
  try {
    for await (const piece of readBackup(source)) {
      isBackup = true;
      yield piece;
    }
  } catch (error) {
    if (!isBackup && error instanceof DamagedBackup) throw new NotRestored(NO_BACKUP);
    throw error;
  }
}

const NO_BACKUP = refuse(
  'backup-not-read',
  'This is not a backup of Name Ledger. Choose a file that was saved under Back up.',
);

function refuseHead({ format, version }: BackupHead): Refusal | null {
  if (format !== FORMAT) return NO_BACKUP;
  if (version !== VERSION && version !== EARLIER)
    return refuse(
      'backup-version',
      `This backup has version ${String(version).slice(0, 20)}; this program reads versions ${EARLIER} and ${VERSION}. Use the program that wrote it.`,
    );
  return null;
}
