import type { Availability, RegistrarLink } from '@/connectors/registrar/port';
import { judgeAnswers, type LinkAnswer, type Verdict } from '@/core/acquiring';
import { indexRules, type LedgerAccount, type RuleIndex } from '@/core/ledger';
import { policyFor } from '@/core/lifecycle';
import { minorFactor } from '@/core/money';
import { nearSpellings } from '@/core/names';
import { priceInForce } from '@/core/pricing';
import { type Refusal, refuse } from '@/core/refusal';
import { type Day, dayOf } from '@/core/time';
import {
  type AnswerDraft,
  type QueuedName,
  selectAvailability,
  settleQueued,
  writeAnswers,
} from '@/database/availability';
import { selectLedgerRules } from '@/database/ledger';
import { selectLinks } from '@/database/links';
import { transaction } from '@/database/pool';
import type { Deps } from '../deps';
import { linkOf } from '../links/links';
import { command } from '../people/command';
import { drainChecks, queueChecks } from '../records/check';
import { RateLimiter } from '../records/rateLimiter';

/** Answers that are written in one statement. */
const WRITTEN_TOGETHER = 500;
/** Names in one question to a registrar. */
const BATCH = 50;
/** One question to a registrar after the other, each once the last is answered: no faster than it answers. */
const AT_REGISTRARS = { atOnce: 1, gapMs: 0 } as const;

/** Kept from one call to the next: no registrar is asked faster because somebody asks again. */
const registrars = new RateLimiter(AT_REGISTRARS);

/** Names spelt nearly so that are asked for in one go. */
const MOST_NEAR = 100;
/** Of the taken ones so many are asked for their holder. */
const MOST_RECORDS = 20;

/** Asks the links for the names that are easily typed or read for one; the records of taken ones say whose they are. Answers how many were asked. */
export const askNear = command('askNear', async (deps: Deps, ascii: string): Promise<number | Refusal> => {
  const near = nearSpellings(ascii).slice(0, MOST_NEAR);
  const sellers = await sellersOf(deps);
  const names = near.map(
    (name): QueuedName => ({
      setId: 0,
      ascii: name,
      ending: name.slice(name.indexOf('.') + 1),
      wantsRecord: false,
      tries: 0,
    }),
  );
  if (names.every(({ ending }) => sellers.of(ending).length === 0))
    return refuse(
      'no-link-for-ending',
      'No linked account sells this ending: its near spellings are looked up one by one, under Registration record.',
    );
  await askLinks(deps, sellers, names);
  // Those that are not sold are somebody's: the records of the first of them say whose.
  const answers = await selectAvailability(deps.database, near);
  const taken = near.filter((name) => answers.some(({ ascii: one, kind }) => one === name && kind === 'taken'));
  await queueChecks(deps, taken.slice(0, MOST_RECORDS));
  await drainChecks(deps, MOST_RECORDS);
  return names.length;
});

interface Seller {
  readonly account: LedgerAccount;
  readonly link: RegistrarLink;
}

export interface Sellers {
  /** Linked accounts that sell an ending by their price lists, the cheapest first. */
  of(ending: string): readonly Seller[];
  /** The least term that is sold. */
  years(ending: string): number;
}

/** Who may be asked for names: the accounts with a link that sell their endings. */
export async function sellersOf(deps: Deps): Promise<Sellers> {
  registrars.beginPass();
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

/** Asks registrars for names in batches, the cheapest seller first, and writes what they said. What is not for sale waits for its record. Answers how many were settled. */
export async function askLinks(deps: Deps, sellers: Sellers, group: readonly QueuedName[]): Promise<number> {
  const byEnding = new Map<string, QueuedName[]>();
  for (const name of group) byEnding.set(name.ending, [...(byEnding.get(name.ending) ?? []), name]);
  // What has been answered is written while the next names are asked for.
  const said: Said[] = [];
  const writes: Promise<number>[] = [];
  const failures: unknown[] = [];
  const write = () => {
    const some = said.splice(0);
    if (some.length === 0) return;
    writes.push(
      writeSaid(deps, some).catch((error: unknown) => {
        failures.push(error);
        return 0;
      }),
    );
  };
  await Promise.all(
    [...byEnding].flatMap(([ending, names]) =>
      batches(names).map(async (batch) => {
        said.push(...(await askSellers(sellers.of(ending), sellers.years(ending), batch)));
        if (said.length >= WRITTEN_TOGETHER) write();
      }),
    ),
  );
  write();
  const settled = (await Promise.all(writes)).reduce((sum, count) => sum + count, 0);
  if (failures.length > 0) throw new AggregateError(failures, 'answers of registrars could not be kept');
  return settled;
}

/** Keeps what links said: what is for sale is settled, the rest waits for its record. Answers how many are settled. */
async function writeSaid(deps: Deps, said: readonly Said[]): Promise<number> {
  const answers = said.flatMap(({ name, accountId, years, answer }): AnswerDraft[] =>
    answer === null
      ? []
      : [
          answerDraft(name, judgeAnswers({ link: answer, record: null, delegated: null }), {
            accountId,
            years,
            answer,
          }),
        ],
  );
  const namesOf = (isSettled: boolean) =>
    said.filter(({ answer }) => (answer?.avail === true) === isSettled).map(({ name }) => name.ascii);
  await transaction(deps.database, async (tx) => {
    if (answers.length > 0) await writeAnswers(tx, answers, deps.clock());
    await settleQueued(tx, namesOf(true), namesOf(false), []);
  });
  return namesOf(true).length;
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

export const NOT_SOLD: Sold = { accountId: null, years: null, answer: null };

/** An answer as it is kept. */
export function answerDraft(
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
