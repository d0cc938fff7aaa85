import { createHash } from 'node:crypto';
import { LRUCache } from 'lru-cache';
import Negotiator from 'negotiator';
import { CONFIRM_DAYS, type DepositRule, fill, LANGUAGE_TAGS, type Language, textsIn } from '@/core/shop';
import type { Deps } from '@/usecases/deps';
import { reading } from '@/usecases/reading';
import { answerAsBuyer } from '@/usecases/shop/acts';
import { matterOf } from '@/usecases/shop/buyer';
import { challengeAnswer } from '@/usecases/shop/certificates';
import { isWithin } from '@/usecases/shop/limits';
import { type NotTaken, sendLetter, type Typed } from '@/usecases/shop/send';
import { shopKey, shopNow } from '@/usecases/shop/taking';
import { formFacts, type ShopWindow, windowOf } from '@/usecases/shop/window';
import { buyerPage } from './buyerPage';
import { NOTHING_HERE, saidPage, type WindowForm, windowPage } from './page';
import { STYLE } from './style';
import { isStampGood, isWorkDone, stampAt, WORK_SCRIPT } from './work';

/** What is asked of the shop. */
export interface ShopAsked {
  readonly method: string;
  /** The target as it stands in the request line. */
  readonly url: string;
  readonly host: string;
  readonly acceptLanguage: string | undefined;
  /** The form that was sent, as it came. */
  readonly body?: string;
  /** From where. */
  readonly address?: string;
  /** What the browser calls itself, and what it fetches the page for. */
  readonly agent?: string;
  readonly purpose?: string;
}

export interface ShopAnswer {
  readonly status: number;
  readonly headers: Readonly<Record<string, string>>;
  readonly body: string;
}

/** A page that was made is told again for so long: a price that is changed shows soon, and a rush asks the database once. */
const KEPT_MS = 2000;
const MOST_KEPT = 5000;
/** A name is no longer (RFC 1035 section 2.3.4), and neither is the address of a trial. */
const LONGEST = 280;

const hashOf = (text: string) => `'sha256-${createHash('sha256').update(text).digest('base64')}'`;
/** Nothing is fetched, framed or sent elsewhere; one style and one script are known by their hashes; no cookie is set. */
const HEADERS: Readonly<Record<string, string>> = {
  'content-security-policy': `default-src 'none'; style-src ${hashOf(STYLE)}; script-src ${hashOf(WORK_SCRIPT)}; base-uri 'none'; form-action 'self'; frame-ancestors 'none'`,
  'x-content-type-options': 'nosniff',
  'referrer-policy': 'no-referrer',
};
const HTML = { 'content-type': 'text/html; charset=utf-8' };

const plain = (status: number, text: string, more: Readonly<Record<string, string>> = {}): ShopAnswer => ({
  status,
  headers: { ...HEADERS, 'content-type': 'text/plain; charset=utf-8', ...more },
  body: text,
});
const NOTHING: ShopAnswer = {
  status: 404,
  headers: { ...HEADERS, ...HTML, 'cache-control': 'no-store' },
  body: NOTHING_HERE,
};
/** A page for one reader alone. */
const own = (status: number, body: string, language: Language): ShopAnswer => ({
  status,
  headers: {
    ...HEADERS,
    ...HTML,
    'content-language': language,
    'cache-control': 'no-store',
    'x-robots-tag': 'noindex',
  },
  body,
});
const seeOther = (location: string): ShopAnswer => plain(303, '', { location, 'cache-control': 'no-store' });

/** What an address of the shop leads to. `base` is the path under which the name's own addresses stand. */
export type Place =
  | { readonly kind: 'window' | 'letter' | 'sent'; readonly name: string; readonly base: string }
  | { readonly kind: 'buyer' | 'challenge'; readonly token: string };

const ALLOWED: Readonly<Record<Place['kind'], string>> = {
  window: 'GET, HEAD',
  sent: 'GET, HEAD',
  letter: 'POST',
  buyer: 'GET, HEAD, POST',
  challenge: 'GET, HEAD',
};

/** A name by its host, or for trials by its path. */
export function placeAsked(url: string, host: string): Place | null {
  if (url.length > LONGEST || host.length > LONGEST) return null;
  const path = url.split(/[?#]/, 1)[0] ?? '/';
  const token = /^\/t\/([\w-]{43})$/.exec(path)?.[1];
  if (token !== undefined) return { kind: 'buyer', token };
  const challenge = /^\/\.well-known\/acme-challenge\/([\w-]{1,128})$/.exec(path)?.[1];
  if (challenge !== undefined) return { kind: 'challenge', token: challenge };
  const trial = /^\/n\/([^/]+)(\/.*)?$/.exec(path);
  const rest = trial ? (trial[2] ?? '/') : path;
  const kind = ({ '/': 'window', '/letter': 'letter', '/sent': 'sent' } as const)[rest];
  if (kind === undefined || (trial?.[2] === '/' && path !== '/')) return null;
  if (!trial) {
    const name = host
      .toLowerCase()
      .replace(/:\d{1,5}$/, '')
      .replace(/^www\./, '');
    return name === '' ? null : { kind, name, base: '' };
  }
  try {
    return { kind, name: decodeURIComponent(trial[1] ?? ''), base: `/n/${trial[1]}` };
  } catch {
    return null;
  }
}

/** The language of the window: what the buyer's browser prefers of those there are (RFC 9110 section 12.5.4). */
export function languageFor(acceptLanguage: string | undefined): Language {
  const headers = { 'accept-language': (acceptLanguage ?? '').slice(0, 200) };
  const wanted = new Negotiator({ headers }).languages();
  for (const tag of wanted) {
    const base = tag.toLowerCase().split('-')[0] ?? '';
    const found = LANGUAGE_TAGS.find((known) => known === base);
    if (found) return found;
  }
  return 'en';
}

/** A page of a name that was made, and of which name of ours. */
interface Made {
  readonly body: string;
  readonly robots: boolean;
  readonly nameId: number;
}

/** Answers buyers. A window is made at most once in two seconds. */
export class Shop {
  private readonly kept = new LRUCache<string, Promise<Made | null>>({ max: MOST_KEPT, ttl: KEPT_MS });

  /** `seen` is told of every window that was shown. */
  constructor(
    private readonly deps: Deps,
    private readonly seen: (nameId: number, asked: ShopAsked) => void = () => undefined,
  ) {}

  async answer(asked: ShopAsked): Promise<ShopAnswer> {
    const { method, url, host, acceptLanguage } = asked;
    const isReading = method === 'GET' || method === 'HEAD';
    if (url === '/robots.txt' && isReading) return this.robots();
    const place = placeAsked(url, host);
    if (place === null) return NOTHING;
    if (!isReading && method !== 'POST') return plain(405, '', { allow: ALLOWED[place.kind] });
    if (place.kind === 'challenge') return this.challenge(place.token);
    if (place.kind === 'buyer') return this.buyer(place.token, asked, isReading);
    const language = languageFor(acceptLanguage);
    if (place.kind === 'window' && isReading) return this.window(place.name, place.base, language, asked);
    if (place.kind === 'letter' && !isReading) return this.letter(place.name, place.base, language, asked);
    if (place.kind === 'sent' && isReading) return this.sent(language);
    return plain(405, '', { allow: ALLOWED[place.kind] });
  }

  /** What a server that gives certificates looks for (RFC 8555 section 8.3). */
  private async challenge(token: string): Promise<ShopAnswer> {
    const answer = await challengeAnswer(this.deps, token);
    return answer === null ? NOTHING : plain(200, answer, { 'cache-control': 'no-store' });
  }

  private async robots(): Promise<ShopAnswer> {
    const { robots } = await shopNow(await reading(this.deps, { orAsItIs: true }));
    return plain(200, `User-agent: *\n${robots ? 'Allow: /\nDisallow: /t/' : 'Disallow: /'}\n`);
  }

  private async window(name: string, base: string, language: Language, asked: ShopAsked): Promise<ShopAnswer> {
    const page = await this.page(name, base, language);
    if (page === null) return NOTHING;
    this.seen(page.nameId, asked);
    return {
      status: 200,
      headers: {
        ...HEADERS,
        ...HTML,
        'content-language': language,
        vary: 'Accept-Language',
        'cache-control': 'public, max-age=30',
        ...(page.robots ? {} : { 'x-robots-tag': 'noindex' }),
      },
      body: page.body,
    };
  }

  /** The page of a name; `null` where it is not for sale. Those who ask in the same moment share one look. */
  private page(name: string, base: string, language: Language): Promise<Made | null> {
    const key = `${language} ${base === '' ? 'host' : 'path'} ${name}`;
    const known = this.kept.get(key);
    if (known) return known;
    const made = this.make(name, base, language, null, null);
    this.kept.set(key, made);
    // What failed is asked again.
    made.catch(() => this.kept.delete(key));
    return made;
  }

  private async make(
    name: string,
    base: string,
    language: Language,
    typed: Typed | null,
    problem: NotTaken | null,
  ): Promise<Made | null> {
    const from = await reading(this.deps, { orAsItIs: true });
    const [window, shop] = await Promise.all([windowOf(from, name), shopNow(from)]);
    if (window === null) return null;
    const form = shop.takes ? await this.form(from, window, shop.deposit, `${base}/letter`, typed, problem) : null;
    const { robots, texts } = shop;
    const made = { language, texts: textsIn(language, texts), robots, form };
    return { body: windowPage(window, made), robots, nameId: window.nameId };
  }

  private async form(
    from: Deps,
    window: ShopWindow,
    rule: DepositRule | null,
    action: string,
    typed: Typed | null,
    problem: NotTaken | null,
  ): Promise<WindowForm> {
    const [facts, key] = await Promise.all([formFacts(from, window, rule), this.stampKey()]);
    return { ...facts, action, stamp: stampAt(key, Date.now()), typed, problem };
  }

  /** The same in every process of the shop. */
  private async stampKey(): Promise<Buffer> {
    const key = shopKey(this.deps);
    return key ? key.derive(STAMP_SALT) : Buffer.alloc(32);
  }

  private async letter(name: string, base: string, language: Language, asked: ShopAsked): Promise<ShopAnswer> {
    const said = new URLSearchParams(asked.body ?? '');
    const at = (field: string) => said.get(field) ?? '';
    const sent = seeOther(`${base}/sent`);
    // A field that nobody sees was filled: by a machine, which need not know.
    if (at('website') !== '') return sent;
    const typed: Typed = {
      kind: at('kind'),
      buyer: at('buyer'),
      mail: at('mail'),
      amount: at('amount'),
      currency: at('currency'),
      message: at('message'),
    };
    const isGood = isStampGood(await this.stampKey(), at('stamp'), Date.now());
    const from = { address: asked.address ?? '', language, proved: isWorkDone(at('stamp'), typed.mail, at('proof')) };
    const problem: NotTaken | null = isGood ? await sendLetter(this.deps, name, typed, from) : { text: 'tooQuick' };
    if (problem === null) return sent;
    const page = await this.make(name, base, language, typed, problem);
    if (page === null) return NOTHING;
    return own(problem.text === 'tooOften' ? 429 : 422, page.body, language);
  }

  private async sent(language: Language): Promise<ShopAnswer> {
    const texts = textsIn(language, (await shopNow(this.deps)).texts);
    return own(200, saidPage(language, texts.sentTitle, fill(texts.sentText, { days: CONFIRM_DAYS })), language);
  }

  /** A buyer's own page, and what he sends from it. Whoever tries links that are none is stopped soon. */
  private async buyer(token: string, asked: ShopAsked, isReading: boolean): Promise<ShopAnswer> {
    const said = new URLSearchParams(asked.body ?? '');
    const at = (field: string) => said.get(field) ?? '';
    const before = await matterOf(this.deps, token);
    if (before === null) {
      const isMany = !(await isWithin(this.deps, 'links', asked.address ?? ''));
      return isMany ? plain(429, 'Too many tries.\n', { 'retry-after': '3600' }) : NOTHING;
    }
    let problem: NotTaken | null = null;
    if (!isReading) {
      problem = await answerAsBuyer(this.deps, before, {
        act: at('act'),
        amount: at('amount'),
        message: at('message'),
        handover: at('handover'),
        account: at(at('handover') === 'transfer' ? 'registrar' : 'account'),
      });
      if (problem === null) return seeOther(`/t/${token}`);
    }
    const { language } = before.letter;
    const texts = textsIn(language, (await shopNow(this.deps)).texts);
    const now = await matterOf(this.deps, token);
    const made = { language, texts, action: `/t/${token}`, problem, amount: at('amount') };
    return own(problem === null ? 200 : 422, buyerPage((now ?? before).view, made), language);
  }
}

const STAMP_SALT = Buffer.from('shop forms stamp');
