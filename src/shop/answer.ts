import { createHash } from 'node:crypto';
import { LRUCache } from 'lru-cache';
import Negotiator from 'negotiator';
import type { Deps } from '@/usecases/deps';
import { windowOf } from '@/usecases/shop/window';
import { NOTHING_HERE, windowPage } from './page';
import { STYLE } from './style';
import { LANGUAGES, type Language } from './words';

/** What is asked of the shop. */
export interface ShopAsked {
  readonly method: string;
  /** The target as it stands in the request line. */
  readonly url: string;
  readonly host: string;
  readonly acceptLanguage: string | undefined;
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
const LONGEST = 260;

const STYLE_HASH = createHash('sha256').update(STYLE).digest('base64');
/** Nothing is fetched, run, framed or sent anywhere; no cookie is set. */
const HEADERS: Readonly<Record<string, string>> = {
  'content-security-policy': `default-src 'none'; style-src 'sha256-${STYLE_HASH}'; base-uri 'none'; form-action 'none'; frame-ancestors 'none'`,
  'x-content-type-options': 'nosniff',
  'referrer-policy': 'no-referrer',
};
const HTML = { 'content-type': 'text/html; charset=utf-8' };

const plain = (status: number, text: string): ShopAnswer => ({
  status,
  headers: { ...HEADERS, 'content-type': 'text/plain; charset=utf-8' },
  body: text,
});
const NOTHING: ShopAnswer = {
  status: 404,
  headers: { ...HEADERS, ...HTML, 'cache-control': 'no-store' },
  body: NOTHING_HERE,
};

/** The name that is asked for: by its host, or for trials by its path; `null` for whatever is neither. */
export function nameAsked(url: string, host: string): string | null {
  if (url.length > LONGEST || host.length > LONGEST) return null;
  const path = url.split(/[?#]/, 1)[0] ?? '/';
  if (path === '/')
    return (
      host
        .toLowerCase()
        .replace(/:\d{1,5}$/, '')
        .replace(/^www\./, '') || null
    );
  const trial = /^\/n\/([^/]+)$/.exec(path)?.[1];
  if (trial === undefined) return null;
  try {
    return decodeURIComponent(trial);
  } catch {
    return null;
  }
}

/** The language of the window: what the buyer's browser prefers of those there are (RFC 9110 section 12.5.4). */
export function languageFor(acceptLanguage: string | undefined): Language {
  const known = Object.keys(LANGUAGES);
  const headers = { 'accept-language': (acceptLanguage ?? '').slice(0, 200) };
  const wanted = new Negotiator({ headers }).languages();
  for (const tag of wanted) {
    const base = tag.toLowerCase().split('-')[0] ?? '';
    if (known.includes(base)) return base as Language;
  }
  return 'en';
}

/** Answers buyers, each page made at most once in two seconds. */
export class Shop {
  private readonly kept = new LRUCache<string, Promise<string | null>>({ max: MOST_KEPT, ttl: KEPT_MS });

  constructor(private readonly deps: Deps) {}

  async answer({ method, url, host, acceptLanguage }: ShopAsked): Promise<ShopAnswer> {
    if (method !== 'GET' && method !== 'HEAD')
      return { ...plain(405, ''), headers: { ...HEADERS, allow: 'GET, HEAD' } };
    if (url === '/robots.txt') return plain(200, 'User-agent: *\nAllow: /\n');
    const name = nameAsked(url, host);
    if (name === null) return NOTHING;
    const language = languageFor(acceptLanguage);
    const page = await this.page(name, language);
    if (page === null) return NOTHING;
    return {
      status: 200,
      headers: {
        ...HEADERS,
        ...HTML,
        'content-language': language,
        vary: 'Accept-Language',
        'cache-control': 'public, max-age=30',
      },
      body: page,
    };
  }

  /** The page of a name; `null` where it is not for sale. Those who ask in the same moment share one look. */
  private page(name: string, language: Language): Promise<string | null> {
    const key = `${language} ${name}`;
    const known = this.kept.get(key);
    if (known) return known;
    const made = windowOf(this.deps, name).then((window) => window && windowPage(window, language));
    this.kept.set(key, made);
    // What failed is asked again.
    made.catch(() => this.kept.delete(key));
    return made;
  }
}
