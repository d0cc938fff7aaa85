import { createHash } from 'node:crypto';
import { type DnsServer, lookAtDelegation } from '@/connectors/records/dnsClient';
import { askRdap, askRdapAt, type HttpLimits, type RdapAnswer } from '@/connectors/records/rdapClient';
import { askWhois } from '@/connectors/records/whoisClient';
import { blankRecord, type RecordSource, type RegistrationRecord } from '@/core/records';
import type { RecordDraft, StoredRecord } from '@/database/records';
import type { RecordServers } from '@/database/settings';
import { readBootstrap, serversFor } from '@/formats/rdap/bootstrap';
import { readRdapDomain } from '@/formats/rdap/readRdap';
import { readWhois } from '@/formats/whois/readWhois';
import { delegationStands } from '@/formats/zone/delegation';
import type { RateLimiter } from './rateLimiter';
import { dnsServer } from './servers';

/** What came of asking for a name's records. */
export type Asked =
  | { readonly kind: 'seen'; readonly drafts: readonly RecordDraft[]; readonly unchanged: readonly number[] }
  | { readonly kind: 'later'; readonly seconds: number; readonly problem: string }
  | { readonly kind: 'failed'; readonly problem: string };

const RETRY_S = 120;

/**
 * Asks the registry of a name, and the registrar that its answer names. RDAP where the ending has it, else WHOIS with referral.
 * A bad answer overwrites nothing: it is a problem, not a record.
 */
export async function askRecords(
  servers: RecordServers,
  rateLimiter: RateLimiter,
  ascii: string,
  known: readonly StoredRecord[],
): Promise<Asked> {
  const asked = await askRegistry(servers, rateLimiter, ascii, known, true);
  const dns = dnsServer(servers);
  if (asked.kind !== 'seen' || dns === null) return asked;
  const drafts = await Promise.all(asked.drafts.map((draft) => withDelegation(draft, dns)));
  return { ...asked, drafts };
}

/** A signed name's draft with what its zone shows; as it was when the name servers do not answer. */
async function withDelegation(draft: RecordDraft, dns: DnsServer): Promise<RecordDraft> {
  const { record, ascii, source, raw, etag } = draft;
  if (source !== 'registry' || !(record.signed || record.ds.length > 0)) return draft;
  const seen = await lookAtDelegation(dns, ascii).catch(() => null);
  const stands = seen && delegationStands(ascii, record.ds.length > 0 ? record.ds : seen.signers, seen.keys);
  return stands === null
    ? draft
    : draftOf(ascii, source, { ...record, delegation: stands ? 'stands' : 'broken' }, raw, etag);
}

/** Asks the registry of a name alone, or its registrar as well. Signatures are not looked at. */
export function askRegistry(
  servers: RecordServers,
  rateLimiter: RateLimiter,
  ascii: string,
  known: readonly StoredRecord[],
  andRegistrar: boolean,
): Promise<Asked> {
  const limits: HttpLimits = { allowedHosts: servers.allowedHosts };
  const bootstrap = servers.bootstrap === null ? null : readBootstrap(servers.bootstrap);
  const [base] = bootstrap ? serversFor(bootstrap, ascii) : [];
  if (base) return overRdap(base, limits, rateLimiter, { ascii, known, andRegistrar });
  const ending = ascii.slice(ascii.indexOf('.') + 1);
  const whois = servers.whois[ending] ?? servers.whois[ending.split('.').at(-1) ?? ''];
  if (whois) return overWhois(whois, limits, rateLimiter, { ascii, andRegistrar });
  return Promise.resolve({
    kind: 'failed',
    problem: `No server is known for .${ending}. Name one under Setup → Records.`,
  });
}

const newest = (known: readonly StoredRecord[], source: RecordSource) => known.find((one) => one.source === source);

/** What is asked: the registry's record, and that of the registrar which it names. */
interface Question {
  readonly ascii: string;
  readonly known: readonly StoredRecord[];
  readonly andRegistrar: boolean;
}

async function overRdap(
  base: string,
  limits: HttpLimits,
  rateLimiter: RateLimiter,
  { ascii, known, andRegistrar }: Question,
): Promise<Asked> {
  const registryKnown = newest(known, 'registry');
  const host = new URL(base).host;
  // The zone of a signed name may break while its record stays as it is: it is read anew each time.
  const etag = registryKnown?.record.signed ? null : (registryKnown?.etag ?? null);
  const answer = await throughRdap(rateLimiter, host, () => askRdap(base, ascii, limits, etag));
  if (answer === null) return leftAlone(host);
  const registry = readAnswer(answer, ascii, 'registry');
  if (registry.kind === 'later') rateLimiter.pause(host, registry.seconds * 1000);
  if (registry.kind !== 'draft' && registry.kind !== 'unchanged') return registry;
  const drafts = registry.kind === 'draft' ? [registry.draft] : [];
  const unchanged = registry.kind === 'unchanged' && registryKnown ? [registryKnown.id] : [];
  const record = registry.kind === 'draft' ? registry.draft.record : registryKnown?.record;
  if (!andRegistrar || !record?.found || !record.related) return { kind: 'seen', drafts, unchanged };
  // The registrar's own record is worth having, and its absence spoils nothing.
  const related = record.related;
  if (!URL.canParse(related)) return { kind: 'seen', drafts, unchanged };
  const registrarKnown = newest(known, 'registrar');
  const second = await throughRdap(rateLimiter, new URL(related).host, () =>
    askRdapAt(related, limits, registrarKnown?.etag ?? null),
  );
  if (second === null) return { kind: 'seen', drafts, unchanged };
  const registrar = readAnswer(second, ascii, 'registrar');
  if (registrar.kind === 'draft') drafts.push(registrar.draft);
  if (registrar.kind === 'unchanged' && registrarKnown) unchanged.push(registrarKnown.id);
  return { kind: 'seen', drafts, unchanged };
}

/** A host that has been silent so often that nobody waits for it again in this pass. */
const leftAlone = (host: string) =>
  ({
    kind: 'later',
    seconds: RETRY_S,
    problem: `${host} has not answered several times in a row. It is asked again later.`,
  }) as const;

/** Asks a host in its turn; `null` when it has been silent too often to be waited for. */
async function throughRdap(
  rateLimiter: RateLimiter,
  host: string,
  ask: () => Promise<RdapAnswer>,
): Promise<RdapAnswer | null> {
  return rateLimiter.through(host, async () => {
    if (rateLimiter.isSilent(host)) return null;
    const answer = await ask();
    if (answer.kind !== 'later') rateLimiter.heard(host, answer.kind !== 'failed');
    return answer;
  });
}

type Read =
  | { readonly kind: 'draft'; readonly draft: RecordDraft }
  | { readonly kind: 'unchanged' }
  | { readonly kind: 'later'; readonly seconds: number; readonly problem: string }
  | { readonly kind: 'failed'; readonly problem: string };

function readAnswer(answer: RdapAnswer, ascii: string, source: RecordSource): Read {
  switch (answer.kind) {
    case 'found': {
      const record = readRdapDomain(answer.json, ascii);
      return record === null
        ? { kind: 'failed', problem: 'The answer is no record of a domain.' }
        : { kind: 'draft', draft: draftOf(ascii, source, record, answer.raw, answer.etag) };
    }
    case 'not there':
      return source === 'registrar'
        ? { kind: 'failed', problem: 'The registrar has no record of it.' }
        : { kind: 'draft', draft: draftOf(ascii, source, { ...blankRecord('rdap', ascii), found: false }, '', null) };
    case 'unchanged':
      return answer;
    case 'later':
      return { ...answer, problem: `The server asks to wait for ${answer.seconds} seconds.` };
    case 'failed':
      return { kind: 'failed', problem: `The server gave no usable answer (${answer.cause}).` };
  }
}

async function overWhois(
  server: string,
  limits: HttpLimits,
  rateLimiter: RateLimiter,
  { ascii, andRegistrar }: Omit<Question, 'known'>,
): Promise<Asked> {
  const host = server.split(':')[0] ?? server;
  const ask = async (where: string, source: RecordSource): Promise<RecordDraft | string> => {
    if (rateLimiter.isSilent(where)) return 'left alone';
    try {
      const raw = await rateLimiter.through(where, () => askWhois(where, ascii, limits));
      rateLimiter.heard(where, true);
      if (/rate|quota|limit|too many/i.test(raw) && readWhois(raw, ascii) === null) return 'later';
      const record = readWhois(raw, ascii);
      return record ? draftOf(ascii, source, record, raw, null) : 'The answer is no record of it.';
    } catch (error) {
      rateLimiter.heard(where, false);
      return `The server gave no usable answer (${error instanceof Error ? error.message : 'failed'}).`;
    }
  };
  const first = await ask(server, 'registry');
  if (first === 'left alone') return leftAlone(host);
  if (first === 'later') return { kind: 'later', seconds: RETRY_S, problem: `${host} asks to wait.` };
  if (typeof first === 'string') return { kind: 'failed', problem: first };
  const referral = first.record.referral;
  const second =
    andRegistrar && referral && referral !== host && /\./.test(referral) ? await ask(referral, 'registrar') : null;
  return { kind: 'seen', drafts: second && typeof second !== 'string' ? [first, second] : [first], unchanged: [] };
}

/** A record ready to be stored. Two records are alike when they say the same, whatever their raw text. */
export function draftOf(
  ascii: string,
  source: RecordSource,
  record: RegistrationRecord,
  raw: string,
  etag: string | null,
): RecordDraft {
  const { events, ...said } = record;
  const lasting = events.filter(({ action }) => !/last update of rdap/i.test(action));
  const hash = createHash('sha256')
    .update(JSON.stringify([said, lasting]))
    .digest('base64');
  return { ascii, source, hash, etag, record, raw };
}
