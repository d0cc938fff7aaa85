import { parseDomainName } from '@/core/names';
import { blankRecord, isRedaction, type RegistrationRecord, readStatus } from '@/core/records';
import { isRefusal } from '@/core/refusal';
import { type Instant, parseInstant, parseTermEnd, type TermEnd } from '@/core/time';

type Field =
  | 'name'
  | 'registrar'
  | 'registrarId'
  | 'registered'
  | 'expires'
  | 'registrarExpires'
  | 'changed'
  | 'status'
  | 'nameServer'
  | 'holder'
  | 'holderOrganisation'
  | 'holderMail'
  | 'holderCountry'
  | 'signed'
  | 'referral'
  | 'signer'
  | 'abuseMail'
  | 'abusePhone'
  | 'handle';

/** Keys of all layouts that are understood, without capitals, spaces and signs. */
const FIELDS: Readonly<Record<string, Field>> = {
  domainname: 'name',
  domain: 'name',
  registrar: 'registrar',
  registrarname: 'registrar',
  registrarorganization: 'registrar',
  sponsoringregistrar: 'registrar',
  registrarianaid: 'registrarId',
  creationdate: 'registered',
  created: 'registered',
  createdon: 'registered',
  registered: 'registered',
  registeredon: 'registered',
  registrationdate: 'registered',
  domainregistered: 'registered',
  registryexpirydate: 'expires',
  expirydate: 'expires',
  expirationdate: 'expires',
  expiredate: 'expires',
  expires: 'expires',
  expireson: 'expires',
  paidtill: 'expires',
  renewaldate: 'expires',
  validuntil: 'expires',
  registrarregistrationexpirationdate: 'registrarExpires',
  updateddate: 'changed',
  lastupdated: 'changed',
  lastupdate: 'changed',
  lastmodified: 'changed',
  changed: 'changed',
  modified: 'changed',
  updated: 'changed',
  domainstatus: 'status',
  status: 'status',
  state: 'status',
  registrationstatus: 'status',
  nameserver: 'nameServer',
  nameservers: 'nameServer',
  nserver: 'nameServer',
  domainnameservers: 'nameServer',
  registrantname: 'holder',
  registrant: 'holder',
  holder: 'holder',
  holderc: 'holder',
  owner: 'holder',
  registrantorganization: 'holderOrganisation',
  registrantorganisation: 'holderOrganisation',
  org: 'holderOrganisation',
  organization: 'holderOrganisation',
  registrantemail: 'holderMail',
  registrantcountry: 'holderCountry',
  dnssec: 'signed',
  signed: 'signed',
  signingkey: 'signer',
  dnssecdsdata: 'signer',
  registrarwhoisserver: 'referral',
  whoisserver: 'referral',
  refer: 'referral',
  registrarabusecontactemail: 'abuseMail',
  registrarabusecontactphone: 'abusePhone',
  registrydomainid: 'handle',
};

const NOT_THERE =
  /^(?:%+\s*|>+\s*)?(?:no match|not found|no entries found|no data found|domain not found|object does not exist|no object found|status:\s*(?:free|available)|the queried object does not exist|nothing found)/im;

/** What only a name that is held has. */
const KNOWN_OF_HELD = [
  'registrar',
  'registered',
  'expires',
  'registrarExpires',
  'nameServer',
  'holder',
  'handle',
] as const;

/** The name of a record in A-labels, however it is written; `null` where none is told. */
function saidName(value: string | null): string | null {
  const word = value?.split(/\s/)[0]?.replace(/\.$/, '').toLowerCase() ?? '';
  if (word === '') return null;
  const name = parseDomainName(word, { allowPrivateEndings: true });
  return isRefusal(name) ? word : name.ascii;
}

/** A line of its own that says so of this very name. */
function saysIsFree(text: string, ascii: string): boolean {
  return text.split('\n').some((line) => {
    const said = /^\W*(?:the\s+)?(?:domain\s+)?["'“]?([^\s"'”]+)["'”]?\s+is\s+free\W*$/i.exec(line);
    return said !== null && saidName(said[1] ?? null) === ascii;
  });
}

const squeezed = (key: string) => key.toLowerCase().replace(/[^a-z]/g, '');

/**
 * Reads a WHOIS answer (RFC 3912 leaves its form open): keys and values on one line, keys with their values indented below, keys
 * in brackets, and dotted leaders. What is not understood is named, and never guessed: a date that does not read exactly is not
 * taken. `null` when nothing of it is a record.
 */
export function readWhois(raw: string, ascii: string): RegistrationRecord | null {
  const text = raw.replace(/\r\n?/g, '\n').slice(0, MOST_LETTERS);
  const pairs = pairsOf(text);
  const values = new Map<Field, string[]>();
  const notUnderstood = new Set<string>();
  for (const [key, value] of pairs) {
    const field = FIELDS[squeezed(key)];
    if (field === undefined) notUnderstood.add(key);
    else if (value !== '') values.set(field, [...(values.get(field) ?? []), value]);
  }
  const first = (field: Field) => values.get(field)?.[0] ?? null;
  const said = saidName(first('name'));
  const saysFree =
    NOT_THERE.test(text) ||
    saysIsFree(text, ascii) ||
    (values.get('status') ?? []).some((word) => /^(free|available)$/i.test(word));
  // A word in passing frees no name of which the answer knows anything.
  const isFree = saysFree && !KNOWN_OF_HELD.some((field) => first(field) !== null);
  if (said === null && !isFree) return null;
  // An answer about another name is no answer, nor one about a longer name that ends in this one.
  if (said !== null && said !== ascii) return null;
  if (isFree) return { ...blankRecord('whois', ascii), found: false };
  const day = (field: Field) => readDay(first(field));
  const organisation = first('holderOrganisation');
  const holder = first('holder') ?? organisation;
  const words = (values.get('status') ?? []).flatMap((value) => value.split(/\s*[,;]\s*/));
  const statuses = words.map((word) => ({ word, status: readStatus(word) }));
  const signed = first('signed');
  return {
    ...blankRecord('whois', ascii),
    handle: first('handle'),
    statuses: statuses.flatMap(({ status }) => status ?? []),
    registered: day('registered')?.at ?? null,
    expires: day('expires'),
    registrarExpires: day('registrarExpires'),
    changed: day('changed')?.at ?? null,
    registrar: first('registrar'),
    registrarId: first('registrarId'),
    abuseMail: first('abuseMail'),
    abusePhone: first('abusePhone'),
    holder:
      holder === null
        ? null
        : {
            role: 'registrant',
            name: first('holder'),
            organisation,
            mail: first('holderMail'),
            phone: null,
            country: first('holderCountry'),
            form: null,
            redacted: isRedaction(holder),
          },
    nameServers: (values.get('nameServer') ?? [])
      .map((line) => (line.split(/\s+/)[0] ?? '').toLowerCase().replace(/\.$/, ''))
      .filter((host) => /^[a-z0-9.-]+\.[a-z0-9-]+$/.test(host)),
    signed: (values.get('signer')?.length ?? 0) > 0 ? true : signed === null ? null : /^(signed|yes)/i.test(signed),
    ds: (values.get('signer') ?? []).map((signer) => signer.toUpperCase()),
    referral:
      first('referral')
        ?.replace(/^\w+:\/\//, '')
        .replace(/\/.*$/, '') ?? null,
    notUnderstood: [
      ...notUnderstood,
      ...[...new Set(statuses.filter(({ status }) => status === null).map(({ word }) => `status ${word}`))],
      ...(['registered', 'expires', 'registrarExpires', 'changed'] as const)
        .filter((field) => first(field) !== null && day(field) === null)
        .map((field) => `date “${first(field)?.slice(0, 60)}”`),
    ],
  };
}

const MOST_LETTERS = 200_000;

/** Headings of parts that tell of somebody: what stands in them is theirs. */
const PART = /^\W*(registrant|registrar|(?:admin|tech)\w*(?: contacts?)?|billing(?: contact)?)\W*$/i;

/** Keys with their values, whatever the layout. A key in a part is told with it where that makes a difference: whose `Organization`? */
function pairsOf(text: string): [string, string][] {
  const pairs: [string, string][] = [];
  let heading: { key: string; indent: number } | null = null;
  let part: { of: string; indent: number } | null = null;
  for (const line of text.split('\n')) {
    if (/^\s*[%#>]/.test(line)) continue;
    const indent = line.length - line.trimStart().length;
    const bare = line.trim();
    if (bare === '') {
      heading = null;
      part = null;
      continue;
    }
    const match =
      /^(?:[a-z]\.\s+)?\[([^\]]{2,40})\]\s*(.*)$/.exec(bare) ??
      /^([^:]{2,60}?)\.{2,}:?\s*(.*)$/.exec(bare) ??
      /^([A-Za-z][A-Za-z0-9 /()_.-]{1,59}?):\s*(.*)$/.exec(bare);
    const under: boolean = heading !== null && indent > heading.indent;
    if (part !== null && indent <= part.indent) part = null;
    const named = PART.exec(bare)?.[1];
    if (named !== undefined && part === null && !under) {
      part = { of: named, indent };
      heading = { key: named, indent };
      continue;
    }
    const key = match?.[1]?.trim();
    const known = key === undefined ? undefined : (inPart(part?.of ?? null, key) ?? (FIELDS[squeezed(key)] && key));
    if (key !== undefined && !(under && known === undefined)) {
      const value = match?.[2]?.trim() ?? '';
      // The state of a name may carry its end: `Connected (2027/11/30)`.
      const end = squeezed(key) === 'state' ? /\((\d{4}\/\d{2}\/\d{2})\)$/.exec(value) : null;
      if (end) pairs.push(['Expires', end[1] as string]);
      pairs.push([known ?? key, end ? value.slice(0, end.index).trim() : value]);
      heading = value === '' ? { key, indent } : under ? heading : null;
    } else if (heading && under) pairs.push([heading.key, bare]);
  }
  return pairs;
}

const HOLDERS = /^(?:org|organi[sz]ation|name|email|country|dnssec)$/;

/** A key as it is called within a part of the answer; `undefined` where the part makes no difference. */
function inPart(part: string | null, key: string): string | undefined {
  if (part === null) return undefined;
  const whole = `${part} ${key}`;
  // What is told of others is not told of the name or its holder.
  return FIELDS[squeezed(whole)] || HOLDERS.test(squeezed(key)) ? whole : undefined;
}

const MONTHS = ['jan', 'feb', 'mar', 'apr', 'may', 'jun', 'jul', 'aug', 'sep', 'oct', 'nov', 'dec'];

/** A date as WHOIS servers write it, only where there is one way to read it; `null` for all else. */
export function readDay(text: string | null): TermEnd | null {
  if (text === null) return null;
  const trimmed = text.trim().replace(/^before\s+/i, '');
  const stamped = /^(\d{4}-\d{2}-\d{2})[T ](\d{2}:\d{2}:\d{2})(?:\.\d+)?\s*(Z|UTC|GMT|[+-]\d{2}:?\d{2})?$/i.exec(
    trimmed,
  );
  if (stamped) {
    const zone = /^[+-]/.test(stamped[3] ?? '') ? (stamped[3] ?? '').replace(/^([+-]\d{2}):?(\d{2})$/, '$1:$2') : 'Z';
    const at = parseInstant(`${stamped[1]}T${stamped[2]}${zone}`);
    // Without a zone only the day is sure.
    return at === null ? null : stamped[3] ? { at, precision: 'instant' } : dayEnd(stamped[1] ?? '');
  }
  const iso =
    /^(\d{4})[-./]\s?(\d{2})[-./]\s?(\d{2})\.?$/.exec(trimmed) ??
    // A time in a zone that only has a name leaves the day.
    /^(\d{4})\/(\d{2})\/(\d{2}) \d{2}:\d{2}(?::\d{2})? \([A-Z]{2,5}\)$/.exec(trimmed) ??
    /^(\d{4})(\d{2})(\d{2})$/.exec(trimmed);
  if (iso) return dayEnd(`${iso[1]}-${iso[2]}-${iso[3]}`);
  const named = /^(\d{1,2})[-. ]([A-Za-z]{3,9})[-. ](\d{4})(?:\s.*)?$/.exec(trimmed);
  const month = named ? MONTHS.indexOf((named[2] ?? '').slice(0, 3).toLowerCase()) : -1;
  if (named && month >= 0)
    return dayEnd(`${named[3]}-${String(month + 1).padStart(2, '0')}-${named[1]?.padStart(2, '0')}`);
  const yearFirst = /^(\d{4})-([A-Za-z]{3})-(\d{2})\.?$/.exec(trimmed);
  const monthOfYear = yearFirst ? MONTHS.indexOf((yearFirst[2] ?? '').toLowerCase()) : -1;
  if (yearFirst && monthOfYear >= 0)
    return dayEnd(`${yearFirst[1]}-${String(monthOfYear + 1).padStart(2, '0')}-${yearFirst[3]}`);
  // Day, month, year with dots is the one order in which dots are used.
  const dotted = /^(\d{1,2})\.\s?(\d{1,2})\.\s?(\d{4})$/.exec(trimmed);
  if (dotted) return dayEnd(`${dotted[3]}-${dotted[2]?.padStart(2, '0')}-${dotted[1]?.padStart(2, '0')}`);
  return null;
}

function dayEnd(day: string): TermEnd | null {
  const end = parseTermEnd(day);
  return end && end.at >= (0 as Instant) ? { at: end.at, precision: 'day' } : null;
}
