import { currencyDigits } from '@/core/money';
import type { ShopWindow } from '@/usecases/shop/window';
import { STYLE } from './style';
import { LANGUAGES, type Language, LOCALES } from './words';

const ESCAPED: Readonly<Record<string, string>> = {
  '&': '&amp;',
  '<': '&lt;',
  '>': '&gt;',
  '"': '&quot;',
  "'": '&#39;',
};

/** A text as it may stand in the page: whatever an owner has written is text there. */
export function asText(text: string): string {
  return text.replace(/[&<>"']/g, (letter) => ESCAPED[letter] as string);
}

/** An amount as it is written in a language, with its currency. */
function money(minor: number, currency: string, language: Language): string {
  const digits = currencyDigits(currency);
  const isWhole = minor % 10 ** digits === 0;
  const shown = {
    style: 'currency',
    currency,
    minimumFractionDigits: isWhole ? 0 : digits,
    maximumFractionDigits: digits,
  } as const;
  return new Intl.NumberFormat(LOCALES[language], shown).format(minor / 10 ** digits);
}

/** A moment as it is written in a language; in UTC, since nobody has said where the reader is. */
function moment(at: number, language: Language): string {
  return `${new Intl.DateTimeFormat(LOCALES[language], { dateStyle: 'long', timeStyle: 'short', timeZone: 'UTC' }).format(at)} UTC`;
}

/** What is asked, said in sentences: the first is what a buyer looks for. */
function termsIn(window: ShopWindow, language: Language): string[] {
  const words = LANGUAGES[language];
  const amount = (minor: number) => money(minor, window.currency, language);
  const { priceMinor, takesOffers, minimumMinor, auction } = window;
  if (auction !== null)
    return [
      words.auction(moment(auction.closesAt, language)),
      auction.priceMinor === null ? words.noBid : words.bid(amount(auction.priceMinor)),
      words.nextBid(amount(auction.leastMinor)),
      auction.reserveMinor === null ? words.reserve[auction.reserve] : words.reserveIs(amount(auction.reserveMinor)),
      ...(priceMinor === null ? [] : [words.buyNow(amount(priceMinor))]),
    ];
  return [
    priceMinor === null ? words.offers : words.price(amount(priceMinor)),
    ...(takesOffers && priceMinor !== null ? [words.offersToo] : []),
    ...(minimumMinor === null ? [] : [words.atLeast(amount(minimumMinor))]),
  ];
}

/** The offer as search engines read it. Source: schema.org, types `Offer` and `Product`. */
function linkedData({ ascii, unicode, currency, priceMinor, auction }: ShopWindow): string {
  const minor = priceMinor ?? auction?.priceMinor ?? null;
  const data = {
    '@context': 'https://schema.org',
    '@type': 'Offer',
    url: `https://${ascii}/`,
    availability: 'https://schema.org/InStock',
    itemOffered: { '@type': 'Product', name: unicode, category: 'Domain name' },
    ...(minor === null
      ? {}
      : { price: (minor / 10 ** currencyDigits(currency)).toFixed(currencyDigits(currency)), priceCurrency: currency }),
    ...(auction ? { availabilityEnds: new Date(auction.closesAt).toISOString() } : {}),
  };
  // No text of an owner ends the element that it stands in (HTML, section 4.12.1.3).
  return JSON.stringify(data).replace(/</g, '\\u003c');
}

/** The letters before the ending, one by one, as they are read aloud. */
function lettersOf(unicode: string): string[] {
  return [...new Intl.Segmenter('und', { granularity: 'grapheme' }).segment(unicode.split('.')[0] ?? '')].map(
    ({ segment }) => segment,
  );
}

/** The window of a name: one page, whole without a script. */
export function windowPage(window: ShopWindow, language: Language): string {
  const words = LANGUAGES[language];
  const { ascii, unicode, pitch, description, withSite } = window;
  const [first = '', ...rest] = termsIn(window, language);
  const letters = lettersOf(unicode);
  const facts = [
    words.length(letters.length),
    words.spelled(letters.join('-')),
    ...(ascii === unicode ? [] : [words.alsoWritten(ascii)]),
  ];
  const title = words.forSale(unicode);
  return `<!doctype html>
<html lang="${language}">
<head>
<meta charset="utf-8">
<meta name="viewport" content="width=device-width, initial-scale=1">
<meta name="description" content="${asText(pitch || first)}">
<title>${asText(title)}</title>
<style>${STYLE}</style>
<script type="application/ld+json">${linkedData(window)}</script>
</head>
<body>
<main>
<h1><span class="name">${asText(unicode)}</span> ${asText(title.replace(unicode, '').trim())}</h1>
${pitch ? `<p class="pitch">${asText(pitch)}</p>\n` : ''}<div class="strip" aria-hidden="true"><i></i><b></b></div>
<p class="terms">${asText(first)}</p>
${rest.map((line) => `<p>${asText(line)}</p>\n`).join('')}<p class="facts">${asText(facts.join(' · '))}</p>
${description ? `<p class="description">${asText(description)}</p>\n` : ''}${withSite ? `<p>${asText(words.withSite)}</p>\n` : ''}<h2>${asText(words.handover)}</h2>
<ol>${words.handoverTerms.map((term) => `<li>${asText(term)}</li>`).join('')}</ol>
</main>
</body>
</html>
`;
}

/** For every other name: nothing tells whether it is ours. */
export const NOTHING_HERE = `<!doctype html>
<html lang="en"><head><meta charset="utf-8"><title>404</title></head><body><h1>404</h1></body></html>
`;
