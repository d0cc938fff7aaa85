import { FLAGS, type LedgerColumns, type SparseColumns } from '@/core/ledger';
import { Dictionary, Growing } from '@/core/table';
import { type BinaryRow, copyRows, textsOf } from './copyRows';
import { type Database, snapshot } from './pool';

const ms = (column: string) => `(round(date_part('epoch', ${column}) * 1000)::int8)`;
/** How the database says each small fact of a name: as text, so that one expression packs them all. */
const FACTS: Readonly<Record<keyof typeof FLAGS, string>> = {
  setting: 'setting',
  standing: 'standing',
  purpose: 'purpose',
  neverLost: 'never_lost',
  lock: 'lock',
  privacy: 'privacy',
  registeredDay: 'registered_day',
  termEndDay: 'term_end_day',
  requested: 'requested',
  requestedLock: "case when requested_lock then 'on' when not requested_lock then 'off' end",
  requestedPrivacy: "case when requested_privacy then 'on' when not requested_privacy then 'off' end",
  rescue: 'case when rescue_for = term_end then rescue_verdict end',
};

/** A value of `FLAGS` as SQL writes it. */
const literal = (value: string | boolean) => (typeof value === 'string' ? `'${value}'` : String(value));

/** The small facts, packed as `FLAGS` says: what is null stands first among its values, where it may be null. */
const PACKED = (Object.keys(FLAGS) as (keyof typeof FLAGS)[])
  .map((fact) => {
    const { values, from } = FLAGS[fact];
    const whens = (values as readonly (string | boolean | null)[])
      .flatMap((value, code) => (value === null ? [] : [`when ${literal(value)} then ${code << from}`]))
      .join(' ');
    return `case ${FACTS[fact]} ${whens} else 0 end`;
  })
  .join(' | ');

/** What only few names have: when a name has it, and what that is. */
const SPARSE: Readonly<Record<keyof SparseColumns, readonly [when: string, value: string]>> = {
  unicode: ['"unicode" <> ascii', '"unicode"'],
  observed: ['observed is not null', `jsonb_build_object('phase', observed, 'at', ${ms('observed_at')})`],
  stalledBy: ["setting = 'stalled' and setting_evidence is not null", 'setting_evidence'],
  bestOffer: [
    'best_offer_minor is not null',
    "jsonb_build_object('minor', best_offer_minor, 'currency', best_offer_currency)",
  ],
  saleChance: ['sale_chance is not null', 'sale_chance'],
  confirmMailBy: ['confirm_mail_by is not null', ms('confirm_mail_by')],
  transferred: ['transferred is not null', `jsonb_build_object('at', ${ms('transferred')}, 'day', transferred_day)`],
  holderChanged: [
    'holder_changed is not null',
    `jsonb_build_object('at', ${ms('holder_changed')}, 'day', holder_changed_day, 'waived', holder_lock_waived)`,
  ],
  gracePaid: ['grace_paid is not null', ms('grace_paid')],
  notes: ["notes <> ''", 'notes'],
};
const SPARSE_FACTS = Object.keys(SPARSE) as (keyof SparseColumns)[];
const MORE = `case when ${SPARSE_FACTS.map((fact) => `(${SPARSE[fact][0]})`).join(' or ')} then jsonb_strip_nulls(jsonb_build_object(
  ${SPARSE_FACTS.map((fact) => `'${fact}', case when ${SPARSE[fact][0]} then ${SPARSE[fact][1]} end`).join(',\n  ')}))::text end`;

const namesQuery = (whose: string) => `
  select id, account_id, ${PACKED}, asking_minor, registered, term_end, setting_since, checked_at, ascii, ending, asking_currency, tags, statuses, ${MORE}
  from names where gone_at is null${whose} order by ascii`;

const spentQuery = (whose: string) =>
  `select name_id, sum(minor)::int8, currency from spending where true${whose} group by name_id, currency`;

/** The names of the ledger in columns, all of them or those with some ids. */
export async function selectLedgerColumns(
  db: Database,
  nameIds: readonly number[] | null = null,
): Promise<LedgerColumns> {
  const whose = (id: string) => (nameIds === null ? '' : ` and ${id} = any('{${nameIds.map(Number).join(',')}}')`);
  return snapshot(db, async (client) => {
    const names = new NameRows();
    await copyRows(client, namesQuery(whose('id')), (row) => names.take(row));
    const spent = new SpentRows();
    await copyRows(client, spentQuery(whose('name_id')), (row) => spent.take(row));
    return names.columns(spent);
  });
}

const LINE_FEED = 0x0a;
const FIRST_LETTERS = 65_536;
/** The longest A-label with its dots (RFC 1035 section 2.3.4), and the line feed behind it. */
const MOST_LETTERS = 256;

/** Rows of names as they come, each put into the columns. */
class NameRows {
  #ascii = Buffer.alloc(FIRST_LETTERS);
  #letters = 0;
  readonly #id = new Growing(Int32Array);
  readonly #accountId = new Growing(Int32Array);
  readonly #flags = new Growing(Int32Array);
  readonly #asking = new Growing(Float64Array);
  readonly #registered = new Growing(Float64Array);
  readonly #termEnd = new Growing(Float64Array);
  readonly #settingSince = new Growing(Float64Array);
  readonly #checkedAt = new Growing(Float64Array);
  readonly #ending = new Growing(Uint16Array);
  readonly #currency = new Growing(Uint8Array);
  readonly #tags = new Growing(Int32Array);
  readonly #statuses = new Growing(Int32Array);
  readonly #endings = new Dictionary<string>();
  readonly #currencies = new Dictionary<string>();
  readonly #tagLists = new Dictionary<string[]>();
  readonly #statusLists = new Dictionary<string[]>();
  readonly #sparse = Object.fromEntries(SPARSE_FACTS.map((fact) => [fact, {}])) as Record<
    keyof SparseColumns,
    Record<number, unknown>
  >;

  /** In the order in which `namesQuery` names the fields. */
  take(row: BinaryRow): void {
    const place = this.#id.length;
    this.#id.push(row.int32());
    this.#accountId.push(row.int32());
    this.#flags.push(row.int32());
    this.#asking.push(row.int64());
    this.#registered.push(row.instant());
    this.#termEnd.push(row.instant());
    this.#settingSince.push(row.instant());
    this.#checkedAt.push(row.instant());
    this.#spell(row);
    const ending = row.key() as string;
    this.#ending.push(this.#endings.code(ending, () => ending));
    const currency = row.key();
    this.#currency.push(currency === null ? 0 : this.currency(currency));
    const tags = row.key() as string;
    this.#tags.push(this.#tagLists.code(tags, () => textsOf(tags)));
    const statuses = row.key() as string;
    this.#statuses.push(this.#statusLists.code(statuses, () => textsOf(statuses)));
    const more = row.text();
    if (more === null) return;
    for (const [fact, value] of Object.entries(JSON.parse(more) as object))
      this.#sparse[fact as keyof SparseColumns][place] = value;
  }

  currency(code: string): number {
    return this.#currencies.code(code, () => code);
  }

  #spell(row: BinaryRow): void {
    if (this.#letters + MOST_LETTERS > this.#ascii.length)
      this.#ascii = Buffer.concat([this.#ascii], 2 * this.#ascii.length);
    this.#letters += row.copy(this.#ascii, this.#letters);
    this.#ascii[this.#letters] = LINE_FEED;
    this.#letters += 1;
  }

  columns(spent: SpentRows): LedgerColumns {
    const id = this.#id.done();
    return {
      ascii: this.#ascii.toString('latin1', 0, this.#letters),
      id,
      accountId: this.#accountId.done(),
      flags: this.#flags.done(),
      asking: this.#asking.done(),
      registered: this.#registered.done(),
      termEnd: this.#termEnd.done(),
      settingSince: this.#settingSince.done(),
      checkedAt: this.#checkedAt.done(),
      ending: this.#ending.done(),
      askingCurrency: this.#currency.done(),
      tags: this.#tags.done(),
      statuses: this.#statuses.done(),
      endings: this.#endings.values,
      tagLists: this.#tagLists.values,
      statusLists: this.#statusLists.values,
      spent: spent.byPlace(id, (code) => this.currency(code)),
      // After what was spent has named its currencies too.
      currencies: this.#currencies.values,
      sparse: this.#sparse as unknown as SparseColumns,
    };
  }
}

/** What was spent on names, one row for each currency of a name, as it comes. */
class SpentRows {
  readonly #nameId = new Growing(Int32Array);
  readonly #minor = new Growing(Float64Array);
  readonly #currency = new Growing(Uint8Array);
  readonly #currencies = new Dictionary<string>();

  /** In the order in which `spentQuery` names the fields. */
  take(row: BinaryRow): void {
    this.#nameId.push(row.int32());
    this.#minor.push(row.int64());
    const currency = row.key() as string;
    this.#currency.push(this.#currencies.code(currency, () => currency));
  }

  /** In the order of the names, those of one name by currency; without names that have gone. */
  byPlace(id: Int32Array, codeOf: (currency: string) => number): LedgerColumns['spent'] {
    const [nameId, minor, currency] = [this.#nameId.done(), this.#minor.done(), this.#currency.done()];
    const { values } = this.#currencies;
    const codes = values.map(codeOf);
    const placeById = placesById(id);
    const places = nameId.map((one) => placeById[one] ?? -1);
    // How many lines each name has, then where its next one goes: a pass for each currency keeps them in order.
    const next = new Int32Array(id.length + 1);
    for (const place of places) if (place >= 0) next[place + 1] = (next[place + 1] as number) + 1;
    for (let place = 0; place < id.length; place += 1)
      next[place + 1] = (next[place + 1] as number) + (next[place] as number);
    const total = next[id.length] as number;
    const spent = { place: new Int32Array(total), minor: new Float64Array(total), currency: new Uint8Array(total) };
    for (const value of [...values].sort()) {
      const wanted = values.indexOf(value);
      for (let line = 0; line < places.length; line += 1) {
        const place = places[line] as number;
        if (place < 0 || currency[line] !== wanted) continue;
        const at = next[place] as number;
        next[place] = at + 1;
        spent.place[at] = place;
        spent.minor[at] = minor[line] as number;
        spent.currency[at] = codes[wanted] as number;
      }
    }
    return spent;
  }
}

/** The place of each id; below nothing for one that is not there. Ids are given one after the other, so that few are not. */
function placesById(ids: Int32Array): Int32Array {
  let most = 0;
  for (const id of ids) most = Math.max(most, id);
  const places = new Int32Array(most + 1).fill(-1);
  for (let place = 0; place < ids.length; place += 1) places[ids[place] as number] = place;
  return places;
}
