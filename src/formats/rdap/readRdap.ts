import {
  blankRecord,
  isRedaction,
  type RecordContact,
  type RecordEvent,
  type RegistrationRecord,
  readStatus,
} from '@/core/records';
import { type Instant, parseInstant } from '@/core/time';
import { readCard } from './jcard';

type Json = Readonly<Record<string, unknown>>;
const object = (value: unknown): Json | null =>
  typeof value === 'object' && value !== null && !Array.isArray(value) ? (value as Json) : null;
const list = (value: unknown): readonly unknown[] => (Array.isArray(value) ? value : []);
const objects = (value: unknown): Json[] =>
  list(value).flatMap((one): Json[] => {
    const json = object(one);
    return json ? [json] : [];
  });
const text = (value: unknown): string | null =>
  typeof value === 'string' && value.trim() !== '' ? value.trim() : null;
const texts = (value: unknown): string[] => list(value).flatMap((one) => text(one) ?? []);

const KNOWN = new Set(
  'objectClassName handle ldhName unicodeName variants nameservers secureDNS entities status publicIds remarks links port43 events network rdapConformance notices lang redacted errorCode title description'.split(
    ' ',
  ),
);

/**
 * Reads an answer about a domain (RFC 9083 section 5.3) into the one shape; `null` for what is no such answer. The raw text is
 * kept by the caller, with every member. Times without a zone are not read (RFC 3339).
 */
export function readRdapDomain(json: unknown, ascii: string): RegistrationRecord | null {
  const domain = object(json);
  if (domain?.objectClassName !== 'domain') return null;
  const events = objects(domain.events).flatMap(readEvent);
  const at = (action: string) => events.find((event) => event.action === action)?.at ?? null;
  const entities = objects(domain.entities);
  const redactions = objects(domain.redacted);
  const contacts = entities.flatMap((entity) => readContacts(entity, redactions));
  const registrar = entities.find((entity) => texts(entity.roles).includes('registrar'));
  const registrarCard = readCard(registrar?.vcardArray);
  const abuse = objects(registrar?.entities).find((entity) => texts(entity.roles).includes('abuse'));
  const abuseCard = readCard(abuse?.vcardArray);
  const secure = object(domain.secureDNS);
  const statuses = texts(domain.status).map((word) => ({ word, status: readStatus(word) }));
  const related = objects(domain.links).find(
    (link) => text(link.rel) === 'related' && /rdap\+json/.test(text(link.type) ?? 'rdap+json'),
  );
  const instantEnd = (end: Instant | null) => (end === null ? null : ({ at: end, precision: 'instant' } as const));
  return {
    ...blankRecord('rdap', ascii),
    unicode: text(domain.unicodeName),
    handle: text(domain.handle),
    statuses: statuses.flatMap(({ status }) => status ?? []),
    registered: at('registration'),
    expires: instantEnd(at('expiration')),
    registrarExpires: instantEnd(at('registrar expiration')),
    changed: at('last changed'),
    events,
    registrar: registrarCard.organisation ?? registrarCard.name ?? text(registrar?.handle),
    registrarId:
      objects(registrar?.publicIds)
        .map((id) => text(id.identifier))
        .find((id) => id !== null) ?? null,
    abuseMail: abuseCard.mail,
    abusePhone: abuseCard.phone,
    holder: contacts.find(({ role }) => role === 'registrant') ?? null,
    contacts,
    nameServers: objects(domain.nameservers).flatMap(
      (one) => text(one.ldhName)?.toLowerCase().replace(/\.$/, '') ?? [],
    ),
    signed: typeof secure?.delegationSigned === 'boolean' ? secure.delegationSigned : null,
    ds: objects(secure?.dsData).map(({ keyTag, algorithm, digestType, digest }) =>
      [keyTag, algorithm, digestType, String(digest ?? '').toUpperCase()].join(' '),
    ),
    related: text(related?.href),
    referral: text(domain.port43),
    conformance: texts(domain.rdapConformance),
    notUnderstood: [
      ...statuses.filter(({ status }) => status === null).map(({ word }) => `status ${word}`),
      ...Object.keys(domain).filter((key) => !KNOWN.has(key)),
    ],
  };
}

/** What an error says (RFC 9083 section 6): its title and description, or `null` for what is no error. */
export function readRdapError(json: unknown): string | null {
  const error = object(json);
  if (typeof error?.errorCode !== 'number') return null;
  const said = [text(error.title), ...texts(error.description)].filter((part) => part !== null);
  return said.join(': ') || `error ${error.errorCode}`;
}

function readEvent(event: Json): RecordEvent[] {
  const action = text(event.eventAction);
  const at = parseInstant(text(event.eventDate) ?? '');
  return action === null || at === null ? [] : [{ action, at }];
}

/** Fields of a contact, with how a redaction names each: in words, or by the property of its card. */
const REDACTABLE = {
  organisation: /organi[sz]ation|'org'|‘org’|"org"/i,
  name: /(?<!organi[sz]ation )\bname\b|'fn'|‘fn’|"fn"/i,
  mail: /e-?mail/i,
  phone: /phone|'tel'|‘tel’|"tel"/i,
  country: /country|'adr'|‘adr’|"adr"/i,
} as const;

/**
 * Contacts by role. Only what is held back is unknown (RFC 9537, or words that say so): `null`, whatever stands in its place; the rest
 * counts. `redacted`: neither name nor organisation is left.
 */
function readContacts(entity: Json, redactions: readonly Json[]): RecordContact[] {
  const card = readCard(entity.vcardArray);
  return texts(entity.roles)
    .filter((role) => role !== 'registrar')
    .map((role) => {
      const said = redactions.map(wordsOf).filter((words) => words.toLowerCase().includes(role.toLowerCase()));
      const held = (field: keyof typeof REDACTABLE) => said.some((words) => REDACTABLE[field].test(words));
      const left = (field: keyof typeof REDACTABLE) => (held(field) || isRedaction(card[field]) ? null : card[field]);
      const [name, organisation] = [left('name'), left('organisation')];
      const isHeldBack =
        held('name') || held('organisation') || isRedaction(card.name) || isRedaction(card.organisation);
      return {
        role,
        name,
        organisation,
        mail: left('mail'),
        phone: left('phone'),
        country: left('country'),
        form: card.form,
        redacted: name === null && organisation === null && isHeldBack,
      };
    });
}

/** What a redaction says of itself (RFC 9537 section 4.2): its name, and the paths to what it took away. */
function wordsOf(redaction: Json): string {
  const name = object(redaction.name);
  return [name?.type, name?.description, redaction.prePath, redaction.postPath, redaction.replacementPath]
    .map((one) => text(one) ?? '')
    .join(' ');
}
