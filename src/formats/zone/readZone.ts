import { type Refusal, refuse } from '@/core/refusal';
import type { Zone, ZoneRecord } from './zoneFile';

const MOST_RECORDS = 20_000;

/** One word of a master file, with whether it stood in quotes, as it was written. */
interface Word {
  readonly text: string;
  readonly isQuoted: boolean;
}

/** The words of an entry and whether it begins with its own name. */
interface Entry {
  readonly line: number;
  readonly hasName: boolean;
  readonly words: readonly Word[];
}

/**
 * Reads a master file (RFC 1035 section 5.1): entries over several lines in parentheses, quotes, comments, `$ORIGIN` and `$TTL`, names left
 * out and names relative to the origin; time to live and class in either order. `$INCLUDE` is refused: what it names is not here.
 * Records of every type are kept, known or not (RFC 3597). Refuses with the line that it could not read.
 */
export function readZone(text: string, zone: string): Zone | Refusal {
  const entries = entriesOf(text);
  if ('message' in entries) return entries;
  const records: ZoneRecord[] = [];
  let [origin, ttl, name] = [`${zone}.`, DEFAULT_TTL, '@'];
  for (const { line, hasName, words } of entries) {
    const [first, second] = words;
    if (first?.text === '$ORIGIN' && second) origin = absolute(second.text, origin);
    else if (first?.text === '$TTL' && second) ttl = secondsOf(second.text) ?? ttl;
    else if (first?.text.startsWith('$')) return unread(line, `${first.text} is not understood`);
    else {
      if (hasName) name = relative(absolute(first?.text ?? '@', origin), zone);
      const record = recordOf(hasName ? words.slice(1) : words, name, ttl);
      if (!record) return unread(line, 'a name, a type and its data are expected');
      records.push(record);
    }
    if (records.length > MOST_RECORDS) return unread(line, `more than ${MOST_RECORDS} records`);
  }
  return records.length === 0 ? unread(1, 'it holds no record') : { origin: zone, records };
}

const DEFAULT_TTL = 3600;

const unread = (line: number, why: string) =>
  refuse('zone-unreadable', `Line ${line} of the zone file could not be read: ${why}.`, 'zone');

/** A name with its origin, ending in a dot. */
function absolute(name: string, origin: string): string {
  if (name === '@') return origin;
  return (name.endsWith('.') ? name : `${name}.${origin}`).toLowerCase();
}

/** The same as it stands in a zone: `@` for the zone itself. */
function relative(name: string, zone: string): string {
  const apex = `${zone}.`;
  if (name === apex) return '@';
  return name.endsWith(`.${apex}`) ? name.slice(0, -apex.length - 1) : name;
}

const CLASSES: ReadonlySet<string> = new Set(['IN', 'CH', 'HS', 'CS']);
const UNITS: Readonly<Record<string, number>> = { s: 1, m: 60, h: 3600, d: 86_400, w: 604_800 };

/** `3600`, or `1h30m` as many servers write it; `null` for what is no time. */
function secondsOf(text: string): number | null {
  if (/^\d{1,9}$/.test(text)) return Number(text);
  if (!/^(\d{1,6}[smhdw])+$/i.test(text)) return null;
  return [...text.matchAll(/(\d+)([smhdw])/gi)].reduce(
    (sum, [, count, unit]) => sum + Number(count) * (UNITS[unit?.toLowerCase() ?? ''] ?? 0),
    0,
  );
}

function recordOf(words: readonly Word[], name: string, usualTtl: number): ZoneRecord | null {
  let ttl = usualTtl;
  for (const [place, { text, isQuoted }] of words.entries()) {
    const seconds = isQuoted ? null : secondsOf(text);
    if (seconds !== null) ttl = seconds;
    else if (!CLASSES.has(text.toUpperCase())) {
      const data = words.slice(place + 1);
      if (isQuoted || !/^[A-Za-z][A-Za-z0-9-]*$/.test(text) || data.length === 0) return null;
      return { name, ttl, type: text.toUpperCase(), data: data.map(written).join(' ') };
    }
  }
  return null;
}

const written = ({ text, isQuoted }: Word) => (isQuoted ? `"${text}"` : text);

/** The entries of a master file, each with the line on which it begins. */
function entriesOf(text: string): Entry[] | Refusal {
  const entries: Entry[] = [];
  let [depth, start, hasName] = [0, 1, false];
  let words: Word[] = [];
  for (const [i, line] of text.split(/\r\n|\n|\r/).entries()) {
    if (depth === 0) [start, hasName] = [i + 1, !/^[ \t]/.test(line)];
    // Quoted strings first: what is in them is no comment and no parenthesis.
    for (const [token, quoted] of line.matchAll(/"((?:[^"\\]|\\.)*)"|;.*$|[()]|(?:[^\s;()"\\]|\\.)+/g)) {
      if (token.startsWith(';')) break;
      if (token === '(') depth += 1;
      else if (token === ')') depth -= 1;
      else words.push({ text: quoted ?? token, isQuoted: quoted !== undefined });
      if (depth < 0) return unread(i + 1, 'a parenthesis closes that was not opened');
    }
    if (depth > 0) continue;
    if (words.length > 0) entries.push({ line: start, hasName, words });
    words = [];
  }
  return depth > 0 ? unread(start, 'a parenthesis is not closed') : entries;
}
