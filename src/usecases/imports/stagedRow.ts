import { type Refusal, refuse } from '@/core/refusal';
import { dayOf, formatDay, type Instant } from '@/core/time';
import type { StagedRow } from '@/database/stageRows';
import type { TableRow } from '@/formats/csv/readTable';
import type { PortfolioRow, ReadRow } from '@/formats/portfolio/readRow';

/** A row that cannot be taken, with all it says, so that it can be mended. */
export function refusedRow(id: string, row: TableRow, { code, message }: Refusal): StagedRow {
  const input = JSON.stringify(row.cells.map((cell) => cell.slice(0, 4000)));
  return { import_id: id, line: row.line, outcome: 'refused', input, code, message };
}

/** A row of a list that can be taken, as it is put beside the ledger. `accountLabel`: the account of rows that name none. */
export function stagedRow(id: string, { line }: TableRow, read: ReadRow, accountLabel: string | null): StagedRow {
  const { name, registered, expires, asking, paid, renewalPrice } = read;
  return {
    import_id: id,
    line,
    outcome: 'new',
    ascii: name.ascii,
    message: [name.warning, ...read.lost].filter(Boolean).join(' ') || null,
    unicode: name.unicode,
    ending: name.ending,
    account: read.account ?? accountLabel,
    registered: registered?.at,
    registered_day: registered && registered.precision === 'day',
    term_end: expires?.at,
    term_end_day: expires && expires.precision === 'day',
    setting: read.setting,
    lock: read.lock,
    privacy: read.privacy,
    name_servers: read.nameServers,
    tags: read.tags,
    purpose: read.purpose,
    never_lost: read.neverLost,
    notes: read.notes,
    asking_minor: asking?.minor,
    asking_currency: asking?.currency,
    paid_minor: paid?.minor,
    paid_currency: paid?.currency,
    paid_on: read.boughtOn,
    renewal_minor: renewalPrice?.minor,
    renewal_currency: renewalPrice?.currency,
  };
}

/** A name stands in the list twice: the first row counts, unless the person takes the other. */
export function twice(line: number, end: number | null, { expires }: PortfolioRow): Refusal {
  const day = (at: number | null) => (at === null ? 'no end' : formatDay(dayOf(at as Instant)));
  const differ = end !== (expires?.at ?? null);
  return refuse(
    'name-twice',
    differ
      ? `This name stands on line ${line} already, there with ${day(end)}, here with ${day(expires?.at ?? null)}. Line ${line} counts, unless you take this one.`
      : `This name stands on line ${line} already. Line ${line} counts, unless you take this one.`,
  );
}
