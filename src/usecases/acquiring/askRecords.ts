import { askDns, type DnsServer } from '@/connectors/records/dnsClient';
import { isOpen, judgeAnswers, type LinkAnswer } from '@/core/acquiring';
import { policyFor } from '@/core/lifecycle';
import { blankRecord, type RegistrationRecord } from '@/core/records';
import { type Instant, latestEnd } from '@/core/time';
import {
  type AnswerDraft,
  type AvailabilityRow,
  type QueuedName,
  selectAvailability,
  settleQueued,
  writeAnswers,
} from '@/database/availability';
import { transaction } from '@/database/pool';
import { selectNewestRecords, selectSightings, storeRecords, touchRecords } from '@/database/records';
import { type RecordServers, selectSettings } from '@/database/settings';
import type { Deps } from '../deps';
import { type Asked, askRegistry } from '../records/ask';
import { RateLimiter } from '../records/rateLimiter';
import { dnsServer } from '../records/servers';
import { policiesByEnding, releaseIn } from '../records/watched';
import { answerDraft, NOT_SOLD } from './askLinks';

const RETRY_S = 60;
const MOST_TRIES = 3;

/** Kept from one call to the next: no server is asked faster because somebody asks again. */
const registries = new RateLimiter();

/** Registries that did not answer in the last pass are asked again. */
export const beginRecordsPass = (): void => registries.beginPass();

/** Reads the records of names that no link has for sale: taken by whom and until when, reserved, or perhaps available. */
export async function askRecordsOf(deps: Deps, group: readonly QueuedName[]): Promise<number> {
  const ascii = group.map((name) => name.ascii);
  const [{ records: servers }, newest, before] = await Promise.all([
    selectSettings(deps.database),
    selectNewestRecords(deps.database, ascii),
    selectAvailability(deps.database, ascii),
  ]);
  const said = new Map(before.map((row) => [row.ascii, row]));
  const asked = await Promise.all(
    group.map(async (name) => {
      const known = newest.filter((record) => record.ascii === name.ascii);
      const answer = await askRegistry(servers, registries, name.ascii, known, false).catch((error: unknown): Asked => {
        deps.log.error({ err: error }, 'a record could not be read');
        return { kind: 'failed', problem: 'Its record could not be read.' };
      });
      const isLast = answer.kind === 'failed' && name.tries + 1 >= MOST_TRIES;
      return { name, answer, isLast, delegated: isLast ? await isDelegated(servers, name.ascii) : null };
    }),
  );
  const at = deps.clock();
  const seen = asked.flatMap(({ answer }) => (answer.kind === 'seen' ? [answer] : []));
  await storeRecords(
    deps.database,
    seen.flatMap(({ drafts }) => drafts),
    at,
  );
  await touchRecords(
    deps.database,
    seen.flatMap(({ unchanged }) => unchanged),
    at,
  );
  const released = await releasesOf(deps, ascii);
  const settled = asked.filter(({ answer, isLast }) => answer.kind === 'seen' || isLast);
  const answers = settled.map(({ name, answer, delegated }): AnswerDraft => {
    const row = said.get(name.ascii);
    const link = row && saidNow(row, at) ? notSold(row.said) : null;
    const record = answer.kind === 'seen' ? recordIn(answer, newest, name.ascii) : null;
    const verdict = judgeAnswers({ link, record: record && { by: record.protocol, found: record.found }, delegated });
    const draft = answerDraft(name, verdict, { ...NOT_SOLD, answer: link });
    return verdict.kind === 'taken' ? { ...draft, ...released.get(name.ascii) } : draft;
  });
  const later = asked.flatMap(({ name, answer, isLast }) => {
    if (answer.kind === 'seen' || isLast) return [];
    const seconds = answer.kind === 'later' ? answer.seconds : RETRY_S * 2 ** name.tries;
    return [{ ascii: name.ascii, notBefore: at + seconds * 1000 }];
  });
  await transaction(deps.database, async (tx) => {
    if (answers.length > 0) await writeAnswers(tx, answers, at);
    await settleQueued(
      tx,
      answers.map((one) => one.ascii),
      [],
      later,
    );
  });
  return answers.length;
}

const HOUR = 3_600_000;

/** Whether a link has just said that it does not sell the name: what it said another day is no answer. */
const saidNow = ({ askedBy, kind, askedAt }: AvailabilityRow, at: Instant) =>
  askedBy === 'link' && !isOpen(kind) && at - askedAt < HOUR;

const notSold = (reason: string | null): LinkAnswer => ({
  avail: false,
  reason,
  isPremium: false,
  register: null,
  renew: null,
});

/** The registry's record of a name as it was just seen: a new one, or the known one that it still is. */
function recordIn(
  { drafts, unchanged }: Extract<Asked, { kind: 'seen' }>,
  known: readonly { readonly id: number; readonly record: RegistrationRecord }[],
  ascii: string,
): RegistrationRecord {
  const draft = drafts.find(({ source }) => source !== 'registrar');
  return draft?.record ?? known.find(({ id }) => unchanged.includes(id))?.record ?? blankRecord('rdap', ascii);
}

/** The end of the term and the range in which each of these names may come free, by what was seen of it. */
async function releasesOf(
  deps: Deps,
  ascii: readonly string[],
): Promise<Map<string, Pick<AnswerDraft, 'termEnd' | 'earliest' | 'latest'>>> {
  const [sightings, policies] = await Promise.all([selectSightings(deps.database, ascii), policiesByEnding(deps)]);
  const byName = new Map<string, typeof sightings>();
  for (const one of sightings) byName.set(one.ascii, [...(byName.get(one.ascii) ?? []), one]);
  return new Map(
    [...byName].map(([name, history]) => {
      const ending = name.slice(name.indexOf('.') + 1);
      const release = releaseIn(history, policyFor(ending, policies));
      const end = history[0]?.record.expires ?? null;
      const termEnd: Instant | null = end === null ? null : latestEnd(end);
      return [name, { termEnd, earliest: release?.earliest ?? null, latest: release?.latest ?? null }] as const;
    }),
  );
}

/** Whether the zone above has name servers for it; `null` where no name server is set, or it gives no answer. */
async function isDelegated(servers: RecordServers, ascii: string): Promise<boolean | null> {
  const dns: DnsServer | null = dnsServer(servers);
  if (dns === null) return null;
  try {
    const { answers = [] } = await askDns(dns, ascii, 'NS');
    return answers.some(({ type }) => type === 'NS');
  } catch {
    // No answer says neither yes nor no.
    return null;
  }
}
