import { setTimeout as wait } from 'node:timers/promises';
import { CONFIRM_DAYS, fill, isOver, type News, newsFor, standingSaid, textsIn } from '@/core/shop';
import { addDays, HOUR_MS, type Instant, MINUTE_MS } from '@/core/time';
import {
  claimNews,
  deleteOldLetters,
  endLetters,
  LETTERS_AT_ONCE,
  type LetterRow,
  noteMailed,
  selectOpenLetters,
  unclaimNews,
} from '@/database/letters';
import { sealPlace } from '@/database/secrets';
import { loadClock } from '../clock';
import type { Deps } from '../deps';
import { itself } from '../people/command';
import { mailTo } from '../reminders/mailOffice';
import { unseal } from '../secrets/seal';
import { type Matter, mattersOf } from './buyer';
import { type ShopNow, shopKey, shopNow } from './taking';

const EVERY_MS = 2000;

/** Mails buyers what is new of what they have sent, looking again and again for `forMs` milliseconds. */
export const tellBuyers = itself(async (deps: Deps, forMs: number): Promise<void> => {
  const until = Date.now() + forMs;
  for (;;) {
    await loadClock(deps);
    await tellNow(deps);
    if (Date.now() + EVERY_MS >= until) return;
    await wait(EVERY_MS);
  }
});

/** Mails what is new now. A link to an address that has confirmed nothing is mailed once, whatever happens. Answers how many were mailed. */
export async function tellNow(deps: Deps): Promise<number> {
  let mailed = 0;
  for (let after = 0; ; ) {
    const letters = await selectOpenLetters(deps.database, deps.clock(), after);
    const shop = letters.length === 0 ? null : await shopNow(deps);
    if (!shop?.takes) return mailed;
    mailed += await tellOf(deps, shop, letters);
    if (letters.length < LETTERS_AT_ONCE) return mailed;
    after = letters.at(-1)?.id as number;
  }
}

async function tellOf(deps: Deps, shop: ShopNow, letters: readonly LetterRow[]): Promise<number> {
  let mailed = 0;
  const ended: number[] = [];
  for (const matter of await mattersOf(deps, letters)) {
    const { letter, view } = matter;
    const news = newsFor(view, letter.told);
    if (news !== null) mailed += (await tell(deps, shop, matter, news)) ? 1 : 0;
    else if (isOver(view)) ended.push(letter.id);
  }
  if (ended.length > 0) await endLetters(deps.database, ended);
  return mailed;
}

/** Mails one piece of news. It is noted before it is sent; where the server has clearly not taken it, it is tried again. */
async function tell(deps: Deps, shop: ShopNow, { letter, view }: Matter, news: News): Promise<boolean> {
  const key = shopKey(deps);
  const token = key && letter.tokenSealed ? await unseal(key, sealPlace.letter(letter.id), letter.tokenSealed) : null;
  if (token === null) return false;
  if (!(await claimNews(deps.database, letter, news.key))) return false;
  const texts = textsIn(letter.language, shop.texts);
  const said = {
    name: view.name,
    link: linkTo(shop.url ?? '', token),
    text: standingSaid(view, texts, letter.language),
  };
  try {
    const isSent = await mailTo(deps, letter.mail, fill(texts[news.subject], said), fill(texts[news.text], said));
    if (isSent && letter.mailTries > 0) await noteMailed(deps.database, letter.id);
    return isSent;
  } catch (error) {
    deps.log.warn({ err: error, letter: letter.id }, 'a buyer’s mail was not taken');
    const why = error instanceof Error ? error.message : 'no reason given';
    // Whoever has confirmed nothing is written to once: in doubt he has it.
    if (view.confirmed || isSurelyUnsent(error))
      await unclaimNews(deps.database, letter, why, againAt(letter.mailTries, deps.clock()));
    return false;
  }
}

/** A minute after the first refusal, twice as long after each further, six hours at most; after twelve no more. */
const FIRST_PAUSE_MS = MINUTE_MS;
const LONGEST_PAUSE_MS = 6 * HOUR_MS;
const MOST_TRIES = 12;

function againAt(tries: number, now: Instant): Instant | null {
  return tries + 1 >= MOST_TRIES ? null : ((now + Math.min(LONGEST_PAUSE_MS, FIRST_PAUSE_MS * 2 ** tries)) as Instant);
}

/** The server said no, or never came to be asked: nothing has been mailed. */
function isSurelyUnsent(error: unknown): boolean {
  const { responseCode, code } = error as { responseCode?: unknown; code?: unknown };
  return typeof responseCode === 'number' || code === 'ECONNREFUSED' || code === 'ENOTFOUND' || code === 'EAUTH';
}

/** The address of a buyer's own page. */
function linkTo(url: string, token: string): string {
  return `${url.replace(/\/$/, '')}/t/${token}`;
}

/** Forgets letters that nobody has confirmed in time. */
export const forgetOldLetters = itself(async (deps: Deps): Promise<void> => {
  await deleteOldLetters(deps.database, addDays(deps.clock(), -CONFIRM_DAYS));
});
