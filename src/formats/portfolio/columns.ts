import { type DateOrder, dateOrderOf, type FoundOrder, looksLikeDate } from '../csv/dateCells';
import type { Table } from '../csv/readTable';

/** What a column of a list of names can hold. */
export const PORTFOLIO_FIELDS = [
  'name',
  'account',
  'registered',
  'expires',
  'autoRenew',
  'lock',
  'privacy',
  'nameServers',
  'tags',
  'purpose',
  'neverLost',
  'pricePaid',
  'boughtOn',
  'renewalPrice',
  'currency',
  'askingPrice',
  'notes',
] as const;
export type PortfolioField = (typeof PORTFOLIO_FIELDS)[number];
export const DATE_FIELDS: readonly PortfolioField[] = ['registered', 'expires', 'boughtOn'];

/** How one column of a file is read: `null` leaves it out. */
export interface ColumnReading {
  readonly heading: string;
  readonly field: PortfolioField | null;
  /** For a date column whose cells leave it open: what the person said, `null` while nobody has. */
  readonly order: DateOrder | null;
  readonly foundOrder: FoundOrder;
}

/** How a file is read. */
export interface Mapping {
  readonly hasHeadings: boolean;
  readonly columns: readonly ColumnReading[];
}

/** Headings as lists of names carry them, letters and digits only. The program's own come first. */
const HEADINGS: Readonly<Record<PortfolioField, readonly string[]>> = {
  name: [
    'name',
    'domain',
    'domainname',
    'domains',
    'fqdn',
    'url',
    'site',
    'hostname',
    'nombre',
    'domaine',
    'domäne',
    'dominio',
  ],
  account: ['account', 'registrar', 'provider', 'accountname', 'sponsoringregistrar', 'heldat', 'where'],
  registered: [
    'registered',
    'registrationdate',
    'created',
    'creationdate',
    'createdate',
    'createdon',
    'createdat',
    'dateregistered',
    'regdate',
    'registeredon',
    'registeredat',
    'since',
    'start',
  ],
  expires: [
    'expires',
    'termends',
    'expirationdate',
    'expirydate',
    'expiry',
    'expiration',
    'expdate',
    'expireson',
    'expiresat',
    'renewaldate',
    'renewson',
    'duedate',
    'due',
    'dateexpires',
    'validuntil',
    'paiduntil',
    'paidthrough',
    'end',
    'enddate',
    'expiredate',
    'nextrenewal',
    'ablaufdatum',
  ],
  autoRenew: [
    'autorenew',
    'autorenewal',
    'auto',
    'renewalmode',
    'autorenewstatus',
    'renewautomatically',
    'automaticrenewal',
    'renewmode',
    'renewal',
    'autorenewed',
    'autorenewenabled',
  ],
  lock: ['lock', 'locked', 'transferlock', 'registrarlock', 'lockstatus', 'domainlock', 'transferlocked', 'islocked'],
  privacy: [
    'privacy',
    'whoisprivacy',
    'idprotection',
    'privacyprotection',
    'whoisprotection',
    'privateregistration',
    'isprivate',
  ],
  nameServers: ['nameservers', 'nameserver', 'ns', 'dns', 'dnsservers', 'hosts'],
  tags: ['tags', 'tag', 'labels', 'category', 'categories', 'group', 'folder', 'keywords'],
  purpose: ['purpose', 'use', 'usage', 'status', 'plan', 'intent'],
  neverLost: ['nevertobelost', 'neverlost', 'never', 'critical', 'protected'],
  pricePaid: [
    'pricepaid',
    'paid',
    'purchaseprice',
    'boughtfor',
    'cost',
    'acquisitioncost',
    'acquisitionprice',
    'buyprice',
  ],
  boughtOn: [
    'datebought',
    'boughton',
    'bought',
    'purchasedate',
    'purchased',
    'acquired',
    'acquisitiondate',
    'dateacquired',
    'purchasedon',
  ],
  renewalPrice: [
    'renewalprice',
    'renewalcost',
    'renewprice',
    'renewcost',
    'renewalfee',
    'annualcost',
    'yearlycost',
    'priceperyear',
    'costperyear',
    'nextprice',
  ],
  currency: ['currency', 'cur', 'ccy', 'currencycode'],
  askingPrice: [
    'asking',
    'askingprice',
    'listprice',
    'saleprice',
    'bin',
    'buynow',
    'buynowprice',
    'askprice',
    'listedat',
  ],
  notes: ['notes', 'note', 'comment', 'comments', 'remark', 'remarks', 'memo', 'description'],
};

const BY_HEADING = new Map(
  PORTFOLIO_FIELDS.flatMap((field) => HEADINGS[field].map((heading) => [heading, field] as const)),
);

function plain(heading: string): string {
  return heading
    .normalize('NFKC')
    .toLowerCase()
    .replace(/[^\p{L}\p{N}]/gu, '');
}

const NAME_SHAPE = /^(https?:\/\/)?[^\s/@]+\.[\p{L}\p{N}-]{2,}\.?\/?$/u;
const SAMPLE = 2000;

/**
 * Proposes how to read a table: by its headings where it has any, else by what its cells look like. No field is given to
 * two columns: the first keeps it. The person sees the proposal and can correct it.
 */
export function proposeMapping(table: Table): Mapping {
  const first = table.rows[0]?.cells ?? [];
  const byHeading = first.map((cell) => BY_HEADING.get(plain(cell)) ?? null);
  const hasHeadings =
    byHeading.includes('name') ||
    (byHeading.some((field) => field !== null) && !first.some((cell) => NAME_SHAPE.test(cell.trim())));
  const taken = new Set<PortfolioField>();
  const columns = Array.from({ length: table.columns }, (_, i): ColumnReading => {
    const cells = sampleCells(table, i, hasHeadings);
    const proposed = hasHeadings ? (byHeading[i] ?? null) : fieldByShape(cells, taken);
    const field = proposed !== null && !taken.has(proposed) ? proposed : null;
    if (field) taken.add(field);
    const heading = hasHeadings ? (first[i]?.trim() ?? '') : '';
    return { heading, field, order: null, foundOrder: dateOrderOf(cells) };
  });
  return { hasHeadings, columns: taken.has('name') ? columns : withNameColumn(table, columns, hasHeadings) };
}

/** Puts remembered fields and orders onto a proposal for a file with the same headings. */
export function withRemembered(proposal: Mapping, remembered: Mapping | null): Mapping {
  if (!remembered || remembered.columns.length !== proposal.columns.length) return proposal;
  const columns = proposal.columns.map((column, i) => {
    const old = remembered.columns[i];
    return old ? { ...column, field: old.field, order: old.order } : column;
  });
  return { hasHeadings: remembered.hasHeadings, columns };
}

/** True for a column of dates whose cells leave open whether day or month comes first. */
export function isOpen({ field, foundOrder }: ColumnReading): boolean {
  return field !== null && DATE_FIELDS.includes(field) && (foundOrder === 'either' || foundOrder === 'contradictory');
}

/** The date columns that nobody has decided yet. */
export function openQuestions(mapping: Mapping): ColumnReading[] {
  return mapping.columns.filter((column) => isOpen(column) && column.order === null);
}

/** The order in which a column's numeric dates are read. */
export function orderOf(column: ColumnReading): DateOrder | null {
  if (column.order !== null) return column.order;
  return column.foundOrder === 'day first' || column.foundOrder === 'month first' ? column.foundOrder : null;
}

function sampleCells(table: Table, column: number, hasHeadings: boolean): string[] {
  return table.rows.slice(hasHeadings ? 1 : 0).map((row) => row.cells[column] ?? '');
}

function fieldByShape(cells: readonly string[], taken: ReadonlySet<PortfolioField>): PortfolioField | null {
  const filled = cells
    .slice(0, SAMPLE)
    .map((cell) => cell.trim())
    .filter((cell) => cell !== '');
  const most = (test: (cell: string) => boolean) => filled.length > 0 && filled.filter(test).length * 2 > filled.length;
  if (!taken.has('name') && most((cell) => NAME_SHAPE.test(cell))) return 'name';
  if (most(looksLikeDate)) return taken.has('expires') ? (taken.has('registered') ? null : 'registered') : 'expires';
  return null;
}

/** A table whose headings name no column for names: the column that looks most like names is proposed. */
function withNameColumn(
  table: Table,
  columns: readonly ColumnReading[],
  hasHeadings: boolean,
): readonly ColumnReading[] {
  const place = columns.findIndex(
    (column, i) => column.field === null && fieldByShape(sampleCells(table, i, hasHeadings), new Set()) === 'name',
  );
  return columns.map((column, i) => (i === place ? { ...column, field: 'name' } : column));
}
