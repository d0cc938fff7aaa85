/** One record of a zone. `name` is relative to the origin, `@` for the origin itself. */
export interface ZoneRecord {
  readonly name: string;
  readonly ttl: number;
  readonly type: string;
  readonly data: string;
}

export interface Zone {
  readonly origin: string;
  readonly records: readonly ZoneRecord[];
}

/** Writes a zone as a master file (RFC 1035 section 5). */
export function writeZone({ origin, records }: Zone): string {
  const lines = records.map(({ name, ttl, type, data }) => `${name}\t${ttl}\tIN\t${type}\t${data}`);
  return `$ORIGIN ${origin}.\n${lines.join('\n')}\n`;
}

/** A string of a TXT record as a master file holds it (RFC 1035 section 5.1). */
export function quoteText(text: string): string {
  return `"${text.replace(/[\\"]/g, (sign) => `\\${sign}`)}"`;
}
