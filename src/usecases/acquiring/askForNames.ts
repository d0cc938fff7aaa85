import { askDns, type DnsServer } from '@/connectors/records/dnsClient';
import type { Availability, RegistrarLink } from '@/connectors/registrar/port';
import { isOpen, judgeAnswers, type LinkAnswer, type Verdict } from '@/core/acquiring';
import { indexRules, type LedgerAccount, type RuleIndex } from '@/core/ledger';
import { policyFor } from '@/core/lifecycle';
import { minorFactor } from '@/core/money';
import { priceInForce } from '@/core/pricing';
import { blankRecord, type RegistrationRecord } from '@/core/records';
import { type Day, dayOf, type Instant, latestEnd } from '@/core/time';
import {
  type AnswerDraft,
  type AvailabilityRow,
  type QueuedName,
  selectAvailability,
  selectQueuedNames,
  settleQueued,
  writeAnswers,
} from '@/database/availability';
import { selectLedgerRules } from '@/database/ledger';
import { selectLinks } from '@/database/links';
import { whileAlone } from '@/database/locks';
import { transaction } from '@/database/pool';
import { selectNewestRecords, selectSightings, storeRecords, touchRecords } from '@/database/records';
import { type RecordServers, selectSettings } from '@/database/settings';
import type { Deps } from '../deps';
import { linkOf } from '../links/links';
import { type Asked, askRegistry } from '../records/ask';
import { RateLimiter } from '../records/rateLimiter';
import { dnsServer } from '../records/servers';
import { policiesByEnding, releaseIn } from '../records/watched';

/** Names in one question to a registrar. */
const BATCH = 50;
/** Names taken out of the line together: a crash leaves no more than these to be asked for again. */
const GROUP = 500;
const RECORD_GROUP = 100;
const RETRY_S = 60;
const MOST_TRIES = 3;
/** So many questions to one registrar at once, and at least so long between two. */
const AT_REGISTRARS = { atOnce: 2, gapMs: 20 } as const;

/** The limits are kept from one call to the next: no server is asked faster because somebody asks again. */
const registrars = new RateLimiter(AT_REGISTRARS);
const registries = new RateLimiter();

/**
 * Asks for the names of all sets that wait: registrars' links first, in batches, then the registries' records, then the zone above. Ends
 * when nothing is left, or after `forMs`. Safe to call again at any moment. Answers how many were settled; `null` while another process is
 * at it.
 */
export function askForNames(deps: Deps, forMs = Number.POSITIVE_INFINITY): Promise<number | null> {
  return whileAlone(deps.database, 'availability', async () => {
    const until = Date.now() + forMs;
    const sellers = await sellersOf(deps);
    let settled = 0;
    while (Date.now() < until) {
      const group = await selectQueuedNames(deps.database, deps.clock(), false, GROUP);
      if (group.length > 0) {
        settled += await askLinks(deps, sellers, group);
        continue;
      }
      const records = await selectQueuedNames(deps.database, deps.clock(), true, RECORD_GROUP);
      if (records.length === 0) break;
      settled += await askRecordsOf(deps, records);
    }
    return settled;
  });
}

interface Seller {
  readonly account: LedgerAccount;
  readonly link: RegistrarLink;
}

interface Sellers {
  /** Linked accounts that sell an ending by their price lists, the cheapest first. */
  of(ending: string): readonly Seller[];
  /** The least term that is sold. */
  years(ending: string): number;
}

async function sellersOf(deps: Deps): Promise<Sellers> {
  const [rules, links] = await Promise.all([selectLedgerRules(deps.database), selectLinks(deps.database)]);
  const index = indexRules(rules);
  const open: Seller[] = [];
  for (const { accountId } of links) {
    const account = index.accounts.get(accountId);
    const link = account ? await linkOf(deps, accountId) : null;
    if (account && link) open.push({ account, link });
  }
  const known = new Map<string, readonly Seller[]>();
  const day = dayOf(deps.clock());
  return {
    of(ending) {
      let found = known.get(ending);
      if (!found) {
        const priced = open.flatMap((seller) => {
          const minor = firstPrice(index, seller.account, ending, day);
          return minor === null ? [] : [{ seller, minor }];
        });
        found = priced.sort((a, b) => a.minor - b.minor).map(({ seller }) => seller);
        known.set(ending, found);
      }
      return found;
    },
    years: (ending) => policyFor(ending, index.policies).terms.register.least,
  };
}

/** What a first year costs by the price list, in the office's currency; without a rate, as it stands. `null`: not sold there. */
function firstPrice(index: RuleIndex, { id }: LedgerAccount, ending: string, day: Day): number | null {
  const of = { accountId: id, nameId: null, ending };
  const price = priceInForce(index.book, of, 'register', day) ?? priceInForce(index.book, of, 'renew', day);
  if (!price) return null;
  const { homeCurrency, rates } = index.rules;
  return (price.firstYearMinor ?? price.yearMinor) * (minorFactor(price.currency, homeCurrency, rates, day) ?? 1);
}

/** One name with what a link said of it; `null` where no link has an answer. */
interface Said {
  readonly name: QueuedName;
  readonly accountId: number | null;
  readonly years: number;
  readonly answer: LinkAnswer | null;
}

async function askLinks(deps: Deps, sellers: Sellers, group: readonly QueuedName[]): Promise<number> {
  const byEnding = new Map<string, QueuedName[]>();
  for (const name of group) byEnding.set(name.ending, [...(byEnding.get(name.ending) ?? []), name]);
  const asked = [...byEnding].flatMap(([ending, names]) =>
    batches(names).map((batch) => askSellers(sellers.of(ending), sellers.years(ending), batch)),
  );
  const said = (await Promise.all(asked)).flat();
  const answers = said.flatMap(({ name, accountId, years, answer }): AnswerDraft[] =>
    answer === null
      ? []
      : [draftOf(name, judgeAnswers({ link: answer, record: null, delegated: null }), { accountId, years, answer })],
  );
  const isSettled = ({ answer }: Said) => answer?.avail === true;
  await transaction(deps.database, async (tx) => {
    if (answers.length > 0) await writeAnswers(tx, answers, deps.clock());
    await settleQueued(
      tx,
      said.filter(isSettled).map(({ name }) => name.ascii),
      said.filter((one) => !isSettled(one)).map(({ name }) => name.ascii),
      [],
    );
  });
  return said.filter(isSettled).length;
}

function batches(names: readonly QueuedName[]): QueuedName[][] {
  const all: QueuedName[][] = [];
  for (let start = 0; start < names.length; start += BATCH) all.push(names.slice(start, start + BATCH));
  return all;
}

/** Asks the cheapest seller; where it has no answer, the next one. */
async function askSellers(sellers: readonly Seller[], years: number, names: readonly QueuedName[]): Promise<Said[]> {
  let open = names;
  const said: Said[] = [];
  for (const { account, link } of sellers) {
    if (open.length === 0) break;
    const host = `account ${account.id}`;
    if (registrars.isSilent(host)) continue;
    const asked = await registrars.through(host, () =>
      link.check(
        open.map(({ ascii }) => ascii),
        years,
        account.currency,
      ),
    );
    registrars.heard(host, asked.kind !== 'unknown');
    if (asked.kind !== 'done') continue;
    const found = new Map(asked.value.map((one) => [one.name, one]));
    const answered = open.filter(({ ascii }) => found.has(ascii));
    for (const name of answered)
      said.push({ name, accountId: account.id, years, answer: answerOf(found.get(name.ascii) as Availability) });
    open = open.filter(({ ascii }) => !found.has(ascii));
  }
  return [...said, ...open.map((name) => ({ name, accountId: null, years, answer: null }))];
}

const answerOf = ({ avail, reason, premium, register, renew }: Availability): LinkAnswer => ({
  avail,
  reason,
  isPremium: premium,
  register,
  renew,
});

interface Sold {
  readonly accountId: number | null;
  readonly years: number | null;
  readonly answer: LinkAnswer | null;
}

const NOT_SOLD: Sold = { accountId: null, years: null, answer: null };

function draftOf(
  { ascii, ending }: QueuedName,
  verdict: Verdict,
  { accountId, years, answer }: Sold = NOT_SOLD,
): AnswerDraft {
  const currency = answer?.register?.currency ?? answer?.renew?.currency ?? null;
  return {
    ascii,
    ending,
    kind: verdict.kind,
    askedBy: verdict.by,
    why: verdict.why,
    said: answer?.reason ?? null,
    accountId,
    years: answer?.avail ? years : null,
    registerMinor: answer?.register?.minor ?? null,
    renewMinor: answer?.renew && answer.renew.currency === currency ? answer.renew.minor : null,
    currency,
    termEnd: null,
    earliest: null,
    latest: null,
  };
}

/** Reads the records of names that no link has for sale: taken by whom and until when, reserved, or perhaps available. */
async function askRecordsOf(deps: Deps, group: readonly QueuedName[]): Promise<number> {
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
    const draft = draftOf(name, verdict, { ...NOT_SOLD, answer: link });
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
