/** A record of a zone, whoever read it: a name relative to the zone, a type and its data as a master file writes them. */
interface ComparedRecord {
  readonly name: string;
  readonly type: string;
  readonly data: string;
}

/** What a zone has lost and what has come into it. */
export interface ZoneDifference<T extends ComparedRecord> {
  readonly lost: readonly T[];
  readonly came: readonly T[];
}

/** What every server makes for itself, anew each time: it says nothing of what the owner has set. */
const MADE_BY_SERVERS: ReadonlySet<string> = new Set(['SOA', 'RRSIG', 'NSEC', 'NSEC3', 'NSEC3PARAM']);

/** Types whose data are names and figures: their letters may be written either way (RFC 4343). */
const NAMES_ONLY: ReadonlySet<string> = new Set(['NS', 'CNAME', 'DNAME', 'MX', 'PTR', 'SRV', 'A', 'AAAA', 'DS']);

/**
 * Compares a zone before with a zone after, record by record. How long a record may be kept is no difference, nor in which order they
 * stand, nor what servers make by themselves.
 */
export function compareZones<T extends ComparedRecord>(before: readonly T[], after: readonly T[]): ZoneDifference<T> {
  const keysOf = (records: readonly T[]) => new Map(records.flatMap((one) => (isSet(one) ? [[keyOf(one), one]] : [])));
  const [old, now] = [keysOf(before), keysOf(after)];
  return {
    lost: [...old].flatMap(([key, record]) => (now.has(key) ? [] : [record])),
    came: [...now].flatMap(([key, record]) => (old.has(key) ? [] : [record])),
  };
}

const isSet = ({ type }: ComparedRecord) => !MADE_BY_SERVERS.has(type.toUpperCase());

function keyOf({ name, type, data }: ComparedRecord): string {
  const one = data.trim().replace(/\s+/g, ' ');
  const text = NAMES_ONLY.has(type.toUpperCase()) ? one.toLowerCase().replace(/\.$/, '') : one;
  return `${name.toLowerCase()} ${type.toUpperCase()} ${text}`;
}
