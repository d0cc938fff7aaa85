import { DamagedBackup } from '@/formats/backup/readBackup';

/** One row of a backup. */
type Row = Readonly<Record<string, unknown>>;

/** Tables by the names that files of version 1 gave them. */
const TABLES: Readonly<Record<string, string>> = {
  means: 'payment_methods',
  letting_go: 'drops',
  venues: 'marketplaces',
  venue_events: 'marketplace_events',
};

/** Columns by the names that files of version 1 gave them, whatever the table. */
const COLUMNS: Readonly<Record<string, string>> = {
  means: 'payment_method',
  venue_id: 'marketplace_id',
  venue: 'marketplace',
  at_venue: 'at_marketplace',
  restoring_days: 'pending_restore_days',
  deleting_days: 'pending_delete_days',
  asked: 'requested',
  asked_at: 'requested_at',
  asked_lock: 'requested_lock',
  asked_privacy: 'requested_privacy',
};

/** States by the words of version 1, for each column that holds one. */
const STATES: Readonly<Record<string, Readonly<Record<string, string>>>> = {
  purpose: { 'let go': 'drop' },
  rescue_verdict: { 'let go': 'drop' },
  observed: { restoring: 'pending restore', deleting: 'pending delete', moving: 'pending transfer' },
  'renewals.status': { asked: 'requested' },
  'listings.kind': { both: 'fixed price, offers too' },
  'batches.kind': { 'let go': 'drop', 'give back': 'refund' },
  'reminders.kind': { 'price step': 'deadline' },
  'settings.key': { letGoReasons: 'dropReasons' },
  'sale_steps.origin': { venue: 'marketplace' },
  'registrar_messages.kind': { purged: 'redemption-ended', 'transfer-asked': 'transfer-requested' },
};

const ADULTS = 'For adults only (18+)';
const YES = [{ label: 'yes', minor: 0 }];

/** What a table of version 1 is called now. */
export function tableNow(table: string): string {
  return TABLES[table] ?? table;
}

/**
 * Rows of a file of version 1 as they would stand in a file of today: the same that the migration of that day did to the tables.
 * `networks` keeps, from the marketplaces on, what a listing's own choice was about. Throws `DamagedBackup` for what is no row.
 */
export function everyRow(table: string, rows: readonly string[], networks: Map<unknown, string>): string[] {
  try {
    return rows.map((text) => JSON.stringify(rowNow(tableNow(table), JSON.parse(text) as Row, networks)));
  } catch (error) {
    // What is no JSON, or nests deeper than any row of ours.
    if (error instanceof SyntaxError || error instanceof RangeError) throw new DamagedBackup('a row in it is damaged');
    throw error;
  }
}

function rowNow(table: string, row: Row, networks: Map<unknown, string>): Row {
  const now = renamed(table, row);
  if (table === 'changes') return { ...now, before: patchNow(row.before), after: patchNow(row.after) };
  // A switch of any kind that was requested.
  if (table === 'batches') return { ...now, kind: String(now.kind).replace(/ asked$/, ' requested') };
  if (table === 'views') return { ...now, query: queryNow(String(row.query)) };
  if (table === 'marketplaces') return marketplaceNow(now, networks);
  if (table === 'listings') return listingNow(now, networks);
  return now;
}

function renamed(table: string, row: Row): Row {
  return Object.fromEntries(
    Object.entries(row).map(([column, value]) => {
      const name = COLUMNS[column] ?? column;
      const states = STATES[`${table}.${name}`] ?? STATES[name];
      const state = typeof value === 'string' ? states?.[value] : undefined;
      return [name, state ?? value];
    }),
  );
}

const patchNow = (patch: unknown) =>
  typeof patch === 'object' && patch !== null ? renamed('names', patch as Row) : patch;

/** Saved views name phases and purposes in the query of a URL. */
function queryNow(query: string): string {
  const params = new URLSearchParams(query);
  const purposes = params.get('purpose')?.replaceAll('let go', 'drop');
  if (purposes !== undefined) params.set('purpose', purposes);
  const phases = params
    .get('phase')
    ?.split(',')
    .map((phase) => (phase === 'free' ? 'available' : (STATES.observed?.[phase] ?? phase)))
    .join(',');
  if (phases !== undefined) params.set('phase', phases);
  const sort = params.get('sort');
  if (sort === 'step' || sort === '-step') params.set('sort', sort.replace('step', 'deadline'));
  return params.toString();
}

function marketplaceNow({ network, placements, ...row }: Row, networks: Map<unknown, string>): Row {
  if (typeof network === 'string') networks.set(row.id, `Shown at ${network} too`);
  const paid =
    Array.isArray(placements) && placements.length > 0 ? [{ label: 'Paid placement', options: placements }] : [];
  const shown = networks.get(row.id);
  return {
    ...row,
    attributes: [{ label: ADULTS, options: YES }, ...(shown ? [{ label: shown, options: YES }] : []), ...paid],
  };
}

function listingNow({ adult, network, placement, ...row }: Row, networks: Map<unknown, string>): Row {
  const shown = networks.get(row.marketplace_id);
  const attributes = {
    ...(adult === true ? { [ADULTS]: 'yes' } : {}),
    ...(network === true && shown ? { [shown]: 'yes' } : {}),
    ...(typeof placement === 'string' ? { 'Paid placement': placement } : {}),
  };
  return { ...row, attributes: row.marketplace_id === null ? {} : attributes };
}
