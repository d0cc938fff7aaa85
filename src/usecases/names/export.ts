import type { NameStanding, NameTable } from '@/core/ledger';
import { type Amount, formatDecimal } from '@/core/money';
import { isRefusal, type Refusal } from '@/core/refusal';
import { daysUntil, endDay, formatInstant, formatTermEnd, type Instant, type TermEnd } from '@/core/time';
import { selectSettings } from '@/database/settings';
import { writeRowsOf, writeTable } from '@/formats/csv/writeTable';
import { type WorkbookCell, writeWorkbook } from '@/formats/workbook/writeWorkbook';
import type { Deps } from '../deps';
import { type ArrangedLedger, arrangeLedger } from './list';
import { accountLabels, nameDocument } from './nameDocument';

const money = (amount: Amount | null) => (amount ? `${formatDecimal(amount)} ${amount.currency}` : '');
const moneys = (amounts: readonly Amount[]) => amounts.map(money).join(' + ');
const end = (term: TermEnd | null) => (term ? formatTermEnd(term) : '');
const day = (instant: Instant | null) => (instant === null ? '' : formatInstant(instant));
const yesNo = (value: boolean | null) => (value === null ? '' : value ? 'yes' : 'no');

interface ExportContext {
  readonly asOf: Instant;
  readonly names: NameTable;
  /** The office's zone, in which days are counted. */
  readonly zone: string;
  readonly account: (id: number) => string;
}

/** How each column of the ledger is written as CSV. The headings are ones that an import reads back. */
const COLUMNS: Readonly<
  Record<
    string,
    {
      readonly heading: string;
      /** A cell of it is never taken for anything else: days, amounts of nothing less than nothing, words of our own. */
      readonly isPlain?: true;
      readonly cell: (name: NameStanding, context: ExportContext) => string;
      /** The same as a workbook keeps it, where that is more than a text. */
      readonly value?: (name: NameStanding, context: ExportContext) => WorkbookCell;
    }
  >
> = {
  name: { heading: 'Name', isPlain: true, cell: ({ place }, { names }) => names.ascii(place) },
  account: { heading: 'Account', cell: ({ place }, { names, account }) => account(names.accountId(place)) },
  termEnd: {
    heading: 'Term ends',
    isPlain: true,
    cell: ({ termEnd }) => end(termEnd),
    value: ({ termEnd }) => termEnd,
  },
  days: {
    heading: 'Days to the end of term',
    isPlain: true,
    cell: ({ termEnd }, { asOf, zone }) => (termEnd ? String(daysUntil(endDay(termEnd, zone), asOf, zone)) : ''),
    value: ({ termEnd }, { asOf, zone }) => (termEnd ? daysUntil(endDay(termEnd, zone), asOf, zone) : null),
  },
  auto: { heading: 'Auto-renew', isPlain: true, cell: ({ setting }) => setting },
  outlook: { heading: 'If nothing is done', cell: ({ outlook }) => outlookCell(outlook) },
  cost: {
    heading: 'Cost now, then',
    isPlain: true,
    cell: ({ deadline }) =>
      deadline
        ? [
            deadline.kind === 'lost' && deadline.ruleOfThumb
              ? `about ${money(deadline.before)}`
              : money(deadline.before),
            deadline.kind === 'charge'
              ? ''
              : deadline.after
                ? `${deadline.ruleOfThumb ? 'about ' : ''}${money(deadline.after)}`
                : 'lost',
          ]
            .filter(Boolean)
            .join(' > ')
        : '',
  },
  asking: {
    heading: 'Asking',
    isPlain: true,
    cell: ({ place }, { names }) => money(names.asking(place)),
    value: ({ place }, { names }) => names.asking(place),
  },
  phase: { heading: 'Phase', isPlain: true, cell: ({ phase }) => phase ?? '' },
  ending: { heading: 'Ending', isPlain: true, cell: ({ place }, { names }) => names.ending(place) },
  registered: {
    heading: 'Registered',
    isPlain: true,
    cell: ({ place }, { names }) => end(names.registered(place)),
    value: ({ place }, { names }) => names.registered(place),
  },
  spent: { heading: 'Spent so far', cell: ({ place }, { names }) => moneys(names.spent(place)) },
  perYear: {
    heading: 'Renewal price',
    isPlain: true,
    cell: ({ costs }) => money(costs.perYear),
    value: ({ costs }) => costs.perYear,
  },
  purpose: { heading: 'Purpose', isPlain: true, cell: ({ place }, { names }) => names.flag(place, 'purpose') },
  tags: { heading: 'Tags', cell: ({ place }, { names }) => names.tags(place).join(', ') },
  lock: { heading: 'Lock', isPlain: true, cell: ({ place }, { names }) => yesNo(names.flag(place, 'lock')) },
  privacy: { heading: 'Privacy', isPlain: true, cell: ({ place }, { names }) => yesNo(names.flag(place, 'privacy')) },
  notes: { heading: 'Notes', cell: ({ place }, { names }) => names.notes(place) },
  checked: { heading: 'Last checked', isPlain: true, cell: ({ place }, { names }) => day(names.checkedAt(place)) },
};

const EVERY_COLUMN = Object.keys(COLUMNS);

function outlookCell(outlook: NameStanding['outlook']): string {
  if (outlook.kind === 'charged' || outlook.kind === 'charge fails')
    return `${outlook.kind} ${formatInstant(outlook.charge.at)}`;
  if (outlook.kind === 'lapses')
    return `lapses ${formatTermEnd(outlook.end)}${outlook.ifOff ? ', if auto-renew is off' : ''}`;
  return 'at' in outlook ? `${outlook.kind} ${formatInstant(outlook.at)}` : outlook.kind;
}

/** So many rows are made and written at a time: a long list is never held as rows and cells. */
const ROWS_A_PIECE = 2000;

/** Exactly the view on screen: its names, order, day and columns, as CSV with every formula cell defused. */
export async function exportCsv(deps: Deps, query: URLSearchParams): Promise<string | Refusal> {
  const arranged = await arrangeLedger(deps, query);
  if (isRefusal(arranged)) return arranged;
  const { ledger, places } = arranged;
  const columns = columnsIn(query);
  const context = await contextOf(deps, arranged);
  const standing = ledger.standings();
  const pieces = [
    writeTable(
      columns.map((column) => column.heading),
      [],
    ),
  ];
  const written = columns.map(({ cell, isPlain = false }) => ({
    isPlain,
    cell: (name: NameStanding) => cell(name, context),
  }));
  for (let from = 0; from < places.length; from += ROWS_A_PIECE)
    pieces.push(writeRowsOf(Array.from(places.subarray(from, from + ROWS_A_PIECE), standing), written));
  return pieces.join('');
}

const columnsIn = (query: URLSearchParams) => {
  const asked = (query.get('columns') ?? '').split(',').filter((id) => id in COLUMNS);
  return (asked.length > 0 ? asked : EVERY_COLUMN).flatMap((id) => COLUMNS[id] ?? []);
};

const contextOf = async ({ database }: Deps, { ledger }: ArrangedLedger): Promise<ExportContext> => ({
  asOf: ledger.day,
  names: ledger.projection.names,
  zone: (await selectSettings(database)).zone,
  account: accountLabels(ledger.projection.index.rules),
});

/** The same view as a workbook: days are days, amounts are figures. */
export async function exportXlsx(deps: Deps, query: URLSearchParams): Promise<Uint8Array | Refusal> {
  const arranged = await arrangeLedger(deps, query);
  if (isRefusal(arranged)) return arranged;
  const columns = columnsIn(query);
  const context = await contextOf(deps, arranged);
  return writeWorkbook(
    'Names',
    columns.map((column) => column.heading),
    Array.from(arranged.places, arranged.ledger.standings()).map((name) =>
      columns.map((column) => (column.value ?? column.cell)(name, context)),
    ),
  );
}

/** The view on screen as JSON, each name in full. */
export async function exportJson(deps: Deps, query: URLSearchParams): Promise<string | Refusal> {
  const arranged = await arrangeLedger(deps, query);
  if (isRefusal(arranged)) return arranged;
  const { ledger, places } = arranged;
  return JSON.stringify({
    asOf: formatInstant(ledger.day),
    names: ledger.rows(places).map((row) => nameDocument(row, ledger.projection, ledger.day)),
  });
}
