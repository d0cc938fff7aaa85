import type { AutoRenewSetting, Standing } from '../funding';
import type { ObservedPhase } from '../lifecycle';
import type { Amount } from '../money';
import type { EppStatus } from '../records';
import { Spellings } from '../table';
import type { Instant, TermEnd } from '../time';
import { type FLAGS, type FlagValue, flagCode, flagValue, type LedgerColumns } from './columns';
import type { LedgerName, Purpose } from './data';

const NONE: readonly never[] = [];

/** What follows from the names and their order alone; made when it is asked for. */
interface Order {
  placeById: ReadonlyMap<number, number> | null;
  places: Int32Array | null;
}

/** The names of a ledger, by place. Hundreds of thousands of them are kept in columns, and one becomes an object where it is looked at. */
export class NameTable {
  readonly columns: LedgerColumns;
  readonly length: number;
  readonly spellings: Spellings;
  readonly #spent: Int32Array;
  readonly #order: Order;

  /** `like`: a table that may hold the same names at the same places; then what follows from their order alone is shared. */
  constructor(columns: LedgerColumns, like: NameTable | null = null) {
    this.columns = columns;
    this.length = columns.id.length;
    this.#order = like?.hasPlacesOf(columns) ? like.#order : { placeById: null, places: null };
    this.spellings = new Spellings(columns.ascii, this.length, columns.sparse.unicode, like?.spellings);
    this.#spent = firstLines(columns.spent.place, this.length);
  }

  /** Whether some columns hold the same names at the same places: only what is known of them may differ. */
  hasPlacesOf(columns: LedgerColumns): boolean {
    const { ascii, id } = this.columns;
    return ascii === columns.ascii && (id === columns.id || id.every((one, place) => one === columns.id[place]));
  }

  /** Every place, in order. Shared: never written to. */
  get places(): Int32Array {
    this.#order.places ??= Int32Array.from({ length: this.length }, (_, place) => place);
    return this.#order.places;
  }

  ascii(place: number): string {
    return this.spellings.ascii(place);
  }

  unicode(place: number): string {
    return this.spellings.unicode(place);
  }

  accountId(place: number): number {
    return this.columns.accountId[place] as number;
  }

  ending(place: number): string {
    return this.columns.endings[this.columns.ending[place] as number] as string;
  }

  /** `null` when nobody has said when the term ends. */
  termEnd(place: number): TermEnd | null {
    return this.#end(this.columns.termEnd[place] as number, 'termEndDay', place);
  }

  registered(place: number): TermEnd | null {
    return this.#end(this.columns.registered[place] as number, 'registeredDay', place);
  }

  #end(at: number, day: 'termEndDay' | 'registeredDay', place: number): TermEnd | null {
    return Number.isNaN(at) ? null : { at: at as Instant, precision: this.flag(place, day) ? 'day' : 'instant' };
  }

  observed(place: number): ObservedPhase | null {
    return (this.columns.sparse.observed[place] as ObservedPhase | undefined) ?? null;
  }

  /** When its record was looked at last. */
  checkedAt(place: number): Instant | null {
    const at = this.columns.checkedAt[place] as number;
    return Number.isNaN(at) ? null : (at as Instant);
  }

  /** One of the small facts. */
  flag<F extends keyof typeof FLAGS>(place: number, fact: F): FlagValue<F> {
    return flagValue(this.columns.flags[place] as number, fact);
  }

  /** Its number among the values of the fact: for what is reckoned over all names. */
  flagCode(place: number, fact: keyof typeof FLAGS): number {
    return flagCode(this.columns.flags[place] as number, fact);
  }

  asking(place: number): Amount | null {
    const minor = this.columns.asking[place] as number;
    const currency = this.columns.currencies[this.columns.askingCurrency[place] as number] as string;
    return Number.isNaN(minor) ? null : { minor, currency };
  }

  /** What was spent on it, one amount for each currency. */
  spent(place: number): readonly Amount[] {
    const { minor, currency } = this.columns.spent;
    const [from, to] = [this.#spent[place] as number, this.#spent[place + 1] as number];
    if (from === to) return NONE;
    return Array.from({ length: to - from }, (_, i) => ({
      minor: minor[from + i] as number,
      currency: this.columns.currencies[currency[from + i] as number] as string,
    }));
  }

  /** The first and the last line, not included, of what was spent on it, in `columns.spent`. */
  spentLines(place: number): readonly [number, number] {
    return [this.#spent[place] as number, this.#spent[place + 1] as number];
  }

  tags(place: number): readonly string[] {
    return this.columns.tagLists[this.columns.tags[place] as number] as readonly string[];
  }

  notes(place: number): string {
    return this.columns.sparse.notes[place] ?? '';
  }

  /** Where the name with this id stands, or `undefined`. */
  placeOf(id: number): number | undefined {
    this.#order.placeById ??= new Map(Array.from(this.columns.id, (one, place) => [one, place]));
    return this.#order.placeById.get(id);
  }

  /** Where the name with this A-label stands; below nothing where there is none. */
  placeOfAscii(ascii: string): number {
    return this.spellings.placeOf(ascii);
  }

  /** Everything the ledger knows of one name. */
  at(place: number): LedgerName {
    const { columns } = this;
    const { sparse } = columns;
    const end = (one: { at: number; day: boolean } | undefined): TermEnd | null =>
      one ? { at: one.at as Instant, precision: one.day ? 'day' : 'instant' } : null;
    const instant = (at: number | undefined) => (at === undefined || Number.isNaN(at) ? null : (at as Instant));
    const ascii = this.ascii(place);
    return {
      id: columns.id[place] as number,
      ascii,
      unicode: sparse.unicode[place] ?? ascii,
      ending: this.ending(place),
      accountId: this.accountId(place),
      registered: this.registered(place),
      termEnd: this.termEnd(place),
      observed: this.observed(place),
      setting: this.flag(place, 'setting') as AutoRenewSetting,
      standing: this.flag(place, 'standing') as Standing,
      settingSince: instant(columns.settingSince[place]),
      requested: this.flag(place, 'requested'),
      requestedLock: this.flag(place, 'requestedLock'),
      requestedPrivacy: this.flag(place, 'requestedPrivacy'),
      stalledBy: sparse.stalledBy[place] ?? null,
      confirmMailBy: instant(sparse.confirmMailBy[place]),
      purpose: this.flag(place, 'purpose') as Purpose,
      neverLost: this.flag(place, 'neverLost'),
      lock: this.flag(place, 'lock'),
      privacy: this.flag(place, 'privacy'),
      transferred: end(sparse.transferred[place]),
      holderChanged: end(sparse.holderChanged[place]),
      holderLockWaived: sparse.holderChanged[place]?.waived ?? false,
      gracePaid: instant(sparse.gracePaid[place]),
      statuses: columns.statusLists[columns.statuses[place] as number] as readonly EppStatus[],
      tags: this.tags(place),
      notes: this.notes(place),
      asking: this.asking(place),
      spent: this.spent(place),
      checkedAt: this.checkedAt(place),
      rescue: this.flag(place, 'rescue'),
      saleChance: sparse.saleChance[place] ?? null,
      bestOffer: sparse.bestOffer[place] ?? null,
    };
  }

  /** Those of some ids that are there, in order. */
  those(ids: readonly number[]): LedgerName[] {
    const places = ids.flatMap((id) => this.placeOf(id) ?? []);
    return [...new Set(places)].sort((a, b) => a - b).map((place) => this.at(place));
  }

  /** All of them as objects. */
  all(): LedgerName[] {
    return Array.from({ length: this.length }, (_, place) => this.at(place));
  }
}

/** Where the lines of each place begin in a column that is ordered by place, and one more behind the last. */
function firstLines(places: Int32Array, names: number): Int32Array {
  const first = new Int32Array(names + 1);
  let line = 0;
  for (let place = 0; place < names; place += 1) {
    first[place] = line;
    while (line < places.length && places[line] === place) line += 1;
  }
  first[names] = line;
  return first;
}
