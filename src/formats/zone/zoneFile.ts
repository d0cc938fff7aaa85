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

const CLASSES = new Set(['IN', 'CH', 'HS']);

/**
 * Reads a master file (RFC 1035 section 5): `$ORIGIN`, `$TTL`, blank owners, parentheses, comments, quoted strings, TTL and class
 * in either order. Answers what could not be read by line instead of guessing.
 */
export function readZone(text: string, fallbackOrigin = ''): { zone: Zone; problems: string[] } {
  const problems: string[] = [];
  const records: ZoneRecord[] = [];
  let origin = fallbackOrigin.replace(/\.$/, '');
  let ttl = 3600;
  let owner = '@';
  for (const { line, tokens, blankOwner } of statements(text)) {
    const [first, second] = tokens;
    if (first === '$ORIGIN' && second) {
      origin = second.replace(/\.$/, '');
      continue;
    }
    if (first === '$TTL' && second) {
      ttl = seconds(second) ?? ttl;
      continue;
    }
    if (first?.startsWith('$')) {
      problems.push(`line ${line}: ${first} is not taken`);
      continue;
    }
    const rest = [...tokens];
    if (!blankOwner) owner = rest.shift() ?? owner;
    let own = ttl;
    while (rest[0] !== undefined && (CLASSES.has(rest[0].toUpperCase()) || seconds(rest[0]) !== null)) {
      own = seconds(rest[0]) ?? own;
      rest.shift();
    }
    const type = rest.shift()?.toUpperCase();
    if (!type || !/^[A-Z][A-Z0-9-]*$/.test(type) || rest.length === 0) {
      problems.push(`line ${line}: no record`);
      continue;
    }
    records.push({ name: relative(owner, origin), ttl: own, type, data: rest.join(' ') });
  }
  return { zone: { origin, records }, problems };
}

function relative(owner: string, origin: string): string {
  if (owner === '@' || owner.replace(/\.$/, '') === origin) return '@';
  return owner.endsWith(`.${origin}.`) ? owner.slice(0, -(origin.length + 2)) : owner;
}

/** `3600`, `1h`, `2d`: seconds, or `null` for what is no time. */
function seconds(text: string): number | null {
  if (/^\d+$/.test(text)) return Number(text);
  const parts = text.match(/^(?:(\d+)w)?(?:(\d+)d)?(?:(\d+)h)?(?:(\d+)m)?(?:(\d+)s)?$/i);
  if (!parts || text === '') return null;
  const units = [604_800, 86_400, 3600, 60, 1];
  return units.reduce((sum, unit, i) => sum + unit * Number(parts[i + 1] ?? 0), 0);
}

/** Logical lines: parentheses join them, comments are left out, quoted strings stay whole. */
function* statements(text: string): Generator<{ line: number; tokens: string[]; blankOwner: boolean }> {
  let tokens: string[] = [];
  let depth = 0;
  let began = 0;
  let blankOwner = false;
  for (const [i, raw] of text.split(/\r?\n/).entries()) {
    if (depth === 0) {
      tokens = [];
      began = i + 1;
      blankOwner = /^\s/.test(raw);
    }
    for (const [token] of raw.matchAll(/"(?:[^"\\]|\\.)*"|;.*$|[()]|[^\s();"]+/g)) {
      if (token.startsWith(';')) break;
      if (token === '(') depth += 1;
      else if (token === ')') depth = Math.max(0, depth - 1);
      else tokens.push(token);
    }
    if (depth === 0 && tokens.length > 0) yield { line: began, tokens, blankOwner };
  }
}
