import { createHash } from 'node:crypto';
import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { LANGUAGES, type Language, LOCALES } from '@/core/shop';
import type { ShopWindow } from '@/usecases/shop/window';
import { languageFor, placeAsked } from './answer';
import { type WindowForm, windowPage } from './page';
import { WORK_SCRIPT } from './work';

const WINDOW: ShopWindow = {
  nameId: 7,
  auctionId: null,
  ascii: 'seaholly.com',
  unicode: 'seaholly.com',
  pitch: 'A plant of the dunes.',
  description: 'First line.\nSecond line.',
  withSite: false,
  currency: 'EUR',
  priceMinor: 1_200_00,
  takesOffers: true,
  minimumMinor: 500_50,
  auction: null,
};

const FORM: WindowForm = {
  action: '/letter',
  stamp: 'stamp',
  currencies: ['EUR', 'USD'],
  deposit: null,
  typed: null,
  problem: null,
};
const made = (language: Language, form: WindowForm | null = FORM) => ({
  language,
  texts: LANGUAGES[language],
  robots: true,
  form,
});

test.each([
  ['/', 'seaholly.com', 'seaholly.com'],
  ['/letter', 'seaholly.com', 'seaholly.com'],
  ['/n/seaholly.com/sent', '127.0.0.1:4190', 'seaholly.com'],
  ['/n/seaholly.com/', '127.0.0.1:4190', null],
  ['/letter/more', 'seaholly.com', null],
  ['/?utm=1', 'WWW.SeaHolly.com:8443', 'seaholly.com'],
  ['/n/seaholly.com', '127.0.0.1:4190', 'seaholly.com'],
  ['/n/k%C3%BCste.de', '127.0.0.1:4190', 'küste.de'],
  ['/n/a/b', 'seaholly.com', null],
  ['/index.html', 'seaholly.com', null],
  ['/n/%E0%A4%A', 'seaholly.com', null],
  ['/', '', null],
  [`/n/${'a'.repeat(300)}`, 'seaholly.com', null],
  ['http://evil.test/', 'seaholly.com', null],
])('%s at %s asks for %s', (url, host, name) => {
  const place = placeAsked(url, host);
  expect(place && 'name' in place ? place.name : null).toBe(name);
});

/** Source: RFC 9110 section 12.5.4, weights; RFC 4647 section 3.4, a longer tag falls back to its language. */
test.each([
  [undefined, 'en'],
  ['', 'en'],
  ['de-AT,de;q=0.9,en;q=0.8', 'de'],
  ['it,fr;q=0.4,es;q=0.7', 'es'],
  ['en;q=0.1, pt-BR', 'pt'],
  ['fr;q=0, de;q=0.1', 'de'],
  ['*', 'en'],
  ['ja,zh', 'en'],
  ['x'.repeat(9000), 'en'],
])('%j is answered in %s', (header, language) => {
  expect(languageFor(header)).toBe(language);
});

describe('the page', () => {
  test.each(Object.keys(LANGUAGES) as Language[])('in %s is whole, small, and fetches nothing', (language) => {
    const page = windowPage(WINDOW, made(language));
    expect(page).toContain(`<html lang="${language}">`);
    expect(Buffer.byteLength(page)).toBeLessThan(30_000);
    expect(page.replace(`<script>${WORK_SCRIPT}</script>`, '')).not.toMatch(
      /<(link|img|iframe|script(?! type="application\/ld\+json"))|https?:(?!\/\/(schema\.org|seaholly\.com))/,
    );
    // An amount as its own language writes it. Source: Unicode CLDR, by Intl.
    expect(page).toContain(
      new Intl.NumberFormat(LOCALES[language], { style: 'currency', currency: 'EUR' }).format(500.5),
    );
    for (const said of ['undefined', 'null', 'NaN', '[object', '{amount', '{name']) expect(page).not.toContain(said);
  });

  test('says the offer to search engines as schema.org has it', () => {
    const data = /<script type="application\/ld\+json">(.*?)<\/script>/.exec(windowPage(WINDOW, made('en')))?.[1] ?? '';
    expect(JSON.parse(data)).toEqual({
      '@context': 'https://schema.org',
      '@type': 'Offer',
      url: 'https://seaholly.com/',
      availability: 'https://schema.org/InStock',
      itemOffered: { '@type': 'Product', name: 'seaholly.com', category: 'Domain name' },
      price: '1200.00',
      priceCurrency: 'EUR',
    });
  });

  test('an auction tells the price so far, the next bid and when it closes', () => {
    const auction = {
      closesAt: Date.UTC(2026, 11, 3, 14, 0),
      priceMinor: 300_00,
      leastMinor: 310_00,
      reserve: 'not met' as const,
      reserveMinor: null,
    };
    const page = windowPage(
      { ...WINDOW, priceMinor: null, takesOffers: false, minimumMinor: null, auction },
      made('en'),
    );
    for (const said of [
      'An auction runs until 3 December 2026 at 14:00 UTC',
      'UTC',
      '€300',
      '€310',
      'The reserve is not met yet.',
    ])
      expect(page).toContain(said);
    expect(page).toContain('"availabilityEnds":"2026-12-03T14:00:00.000Z"');
  });

  test('whatever an owner has written is text', () => {
    fc.assert(
      fc.property(fc.string(), fc.string({ unit: 'grapheme' }), (pitch, description) => {
        const hostile = `</script></style><img src=x onerror=alert(1)>"'${pitch}`;
        const page = windowPage(
          { ...WINDOW, pitch: hostile, description: `${hostile}${description}` },
          made('en', null),
        );
        expect(page.match(/<[a-z]+/g)?.filter((tag) => tag === '<img' || tag === '<iframe')).toEqual([]);
        expect(page.match(/<script/g)).toHaveLength(1);
        expect(page.match(/<\/script>/g)).toHaveLength(1);
        expect(page.match(/<style/g)).toHaveLength(1);
      }),
    );
  });

  test('its one style is the one that its policy allows', async () => {
    const { Shop } = await import('./answer');
    const style = /<style>([\s\S]*?)<\/style>/.exec(windowPage(WINDOW, made('en')))?.[1] ?? '';
    const answer = await new Shop({} as never).answer({
      method: 'GET',
      url: '/x',
      host: '',
      acceptLanguage: undefined,
    });
    expect(answer.status).toBe(404);
    expect(answer.headers['content-security-policy']).toContain(
      `'sha256-${createHash('sha256').update(style).digest('base64')}'`,
    );
    expect(answer.headers['set-cookie']).toBeUndefined();
  });
});
