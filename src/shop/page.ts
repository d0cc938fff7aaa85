import { currencyDigits } from '@/core/money';
import { fill, type Language, type LetterKind, moment, money, type ShopTexts } from '@/core/shop';
import type { NotTaken, Typed } from '@/usecases/shop/send';
import { type ShopWindow, takenIn } from '@/usecases/shop/window';
import { Html, html } from './html';
import { STYLE } from './style';
import { WORK_SCRIPT } from './work';

/** What a window is made with besides the name: the texts, and what a form needs. */
export interface WindowMade {
  readonly language: Language;
  readonly texts: ShopTexts;
  /** Whether search engines may keep it. */
  readonly robots: boolean;
  /** `null` where nothing is taken. */
  readonly form: WindowForm | null;
}

export interface WindowForm {
  /** Where the form is sent to. */
  readonly action: string;
  readonly stamp: string;
  readonly currencies: readonly string[];
  /** From which bid on a deposit is wanted, in the auction's currency, and which share. */
  readonly deposit: { readonly fromMinor: number; readonly percent: number } | null;
  /** What was typed, where it could not be taken, and why. */
  readonly typed: Typed | null;
  readonly problem: NotTaken | null;
}

/** What is asked, said in sentences: the first is what a buyer looks for. */
function termsIn(window: ShopWindow, { texts, language }: WindowMade): string[] {
  const amount = (minor: number) => ({ amount: money(minor, window.currency, language) });
  const { priceMinor, takesOffers, minimumMinor, auction } = window;
  if (auction !== null) {
    const reserve = { none: texts.reserveNone, met: texts.reserveMet, 'not met': texts.reserveNotMet }[auction.reserve];
    return [
      fill(texts.auction, { time: moment(auction.closesAt, language) }),
      auction.priceMinor === null ? texts.noBid : fill(texts.bid, amount(auction.priceMinor)),
      fill(texts.nextBid, amount(auction.leastMinor)),
      auction.reserveMinor === null ? reserve : fill(texts.reserveIs, amount(auction.reserveMinor)),
      ...(priceMinor === null ? [] : [fill(texts.buyNow, amount(priceMinor))]),
    ];
  }
  return [
    priceMinor === null ? texts.offers : fill(texts.price, amount(priceMinor)),
    ...(takesOffers && priceMinor !== null ? [texts.offersToo] : []),
    ...(minimumMinor === null ? [] : [fill(texts.atLeast, amount(minimumMinor))]),
  ];
}

/** The offer as search engines read it. Source: schema.org, types `Offer` and `Product`. */
function linkedData({ ascii, unicode, currency, priceMinor, auction }: ShopWindow): Html {
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
  return new Html(JSON.stringify(data).replace(/</g, '\\u003c'));
}

/** The letters before the ending, one by one, as they are read aloud. */
function lettersOf(unicode: string): string[] {
  return [...new Intl.Segmenter('und', { granularity: 'grapheme' }).segment(unicode.split('.')[0] ?? '')].map(
    ({ segment }) => segment,
  );
}

/** A whole page: its one style is allowed by its hash, and its one script, where it has a form. */
export function pageOf(language: Language, title: string, head: Html, body: Html, hasWork = false): string {
  return `<!doctype html>
<html lang="${language}">
<head>
<meta charset="utf-8">
<meta name="viewport" content="width=device-width, initial-scale=1">
${head.text}<title>${html`${title}`.text}</title>
<style>${STYLE}</style>
</head>
<body>
<main${hasWork ? ' class="wide"' : ''}>
${body.text}</main>
${hasWork ? `<script>${WORK_SCRIPT}</script>\n` : ''}</body>
</html>
`;
}

/** The name as a heading, large, with what is said of it. */
export function nameHeading(unicode: string, said: string): Html {
  return html`<h1><span class="name">${unicode}</span> ${said.replace(unicode, '').trim()}</h1>
`;
}

/** The window of a name: one page, whole without a script. */
export function windowPage(window: ShopWindow, made: WindowMade): string {
  const { texts, language, robots, form } = made;
  const { ascii, unicode, pitch, description, withSite } = window;
  const [first = '', ...rest] = termsIn(window, made);
  const letters = lettersOf(unicode);
  const facts = [
    letters.length === 1 ? texts.lengthOne : fill(texts.length, { letters: letters.length }),
    fill(texts.spelled, { letters: letters.join('-') }),
    ...(ascii === unicode ? [] : [fill(texts.alsoWritten, { name: ascii })]),
  ];
  const title = fill(texts.forSale, { name: unicode });
  const taken = form === null ? [] : takenIn(window);
  const head = html`<meta name="description" content="${pitch || first}">
${!robots && new Html('<meta name="robots" content="noindex">\n')}<script type="application/ld+json">${linkedData(window)}</script>
`;
  const body = html`${nameHeading(unicode, title)}${
    pitch !== '' &&
    html`<p class="pitch">${pitch}</p>
`
  }<div class="strip" aria-hidden="true"><i></i><b></b></div>
<p class="terms">${first}</p>
${rest.map(
  (line) => html`<p>${line}</p>
`,
)}<p class="facts">${facts.join(' · ')}</p>
${form !== null && taken.length > 0 && formIn(window, taken, form, made)}${
  description !== '' &&
  html`<p class="description">${description}</p>
`
}${
  withSite &&
  html`<p>${texts.withSite}</p>
`
}<h2>${texts.handover}</h2>
<ol><li>${texts.handoverPaid}</li><li>${texts.handoverMoved}</li><li>${texts.handoverDone}</li></ol>
`;
  return pageOf(language, title, head, body, taken.length > 0);
}

/** A field with its label, and what is wrong with it. */
function field(name: string, label: string, input: Html, problem: string | null): Html {
  return html`<label for="${name}">${label}</label>
${input}
${
  problem !== null &&
  html`<p class="wrong" id="${name}-wrong">${problem}</p>
`
}`;
}

const wrongIn = (problem: NotTaken | null, name: NotTaken['field'], texts: ShopTexts): string | null =>
  problem !== null && problem.field === name ? fill(texts[problem.text], problem.said) : null;

const pointsTo = (name: string, wrong: string | null): Html =>
  wrong === null ? new Html('') : html` aria-invalid="true" aria-describedby="${name}-wrong"`;

/** The amount, and where several are taken its currency. */
export function amountField(
  label: string,
  { currencies, typed, problem }: Pick<WindowForm, 'currencies' | 'typed' | 'problem'>,
  texts: ShopTexts,
): Html {
  const wrong = wrongIn(problem, 'amount', texts);
  const chosen = typed?.currency || currencies[0];
  const input = html`<span class="amount"><input id="amount" name="amount" inputmode="decimal" autocomplete="off" maxlength="40" value="${typed?.amount ?? ''}"${pointsTo('amount', wrong)}> ${
    currencies.length === 1
      ? html`<span>${currencies[0] ?? ''}</span>`
      : html`<select name="currency" aria-label="${texts.currency}">${currencies.map(
          (code) => html`<option${code === chosen && new Html(' selected')}>${code}</option>`,
        )}</select>`
  }</span>`;
  return field('amount', label, input, wrong);
}

/** A few words beside a figure. */
export function messageField(texts: ShopTexts, message: string): Html {
  const area = html`<textarea id="message" name="message" rows="3" maxlength="400">${message}</textarea>`;
  return field('message', texts.message, area, null);
}

function formIn(window: ShopWindow, taken: readonly LetterKind[], form: WindowForm, made: WindowMade): Html {
  const { texts, language } = made;
  const { typed, problem, deposit } = form;
  const price = window.priceMinor === null ? '' : money(window.priceMinor, window.currency, language);
  const first = taken.find((kind) => kind !== 'purchase') ?? 'purchase';
  const wrongBuyer = wrongIn(problem, 'buyer', texts);
  const wrongMail = wrongIn(problem, 'mail', texts);
  const title = { offer: texts.makeOffer, bid: texts.makeBid, purchase: fill(texts.buy, { amount: price }) }[first];
  const ordered: LetterKind[] = [first, ...taken.filter((kind) => kind !== first)];
  const buttons = ordered.map(
    (kind) =>
      html`<button name="kind" value="${kind}"${kind !== first && new Html(' class="second"')}>${
        { purchase: fill(texts.buy, { amount: price }), offer: texts.sendOffer, bid: texts.sendBid }[kind]
      }</button> `,
  );
  return html`<form method="post" action="${form.action}" data-work novalidate>
<h2>${title}</h2>
${
  problem !== null &&
  html`<p class="wrong" role="alert">${fill(texts[problem.text], problem.said)}</p>
`
}${first !== 'purchase' && amountField(first === 'bid' ? texts.yourMost : texts.yourAmount, form, texts)}${field(
  'buyer',
  texts.yourName,
  html`<input id="buyer" name="buyer" autocomplete="name" maxlength="120" required value="${typed?.buyer ?? ''}"${pointsTo('buyer', wrongBuyer)}>`,
  wrongBuyer,
)}${field(
  'mail',
  texts.yourMail,
  html`<input id="mail" name="mail" type="email" autocomplete="email" maxlength="254" required value="${typed?.mail ?? ''}"${pointsTo('mail', wrongMail)}>`,
  wrongMail,
)}${
  first === 'offer' && messageField(texts, typed?.message ?? '')
}<p class="trap" aria-hidden="true"><label>Website <input name="website" tabindex="-1" autocomplete="off"></label></p>
<input type="hidden" name="stamp" value="${form.stamp}"><input type="hidden" name="proof" value="">
${
  first === 'bid' &&
  html`<p class="facts">${texts.howBids}</p>
`
}${
  first === 'bid' &&
  deposit !== null &&
  html`<p class="facts">${fill(texts.depositFrom, {
    amount: money(deposit.fromMinor, window.currency, language),
    percent: new Intl.NumberFormat(language).format(deposit.percent),
  })}</p>
`
}<p class="buttons">${buttons}</p>
<p class="facts">${texts.linkFirst}</p>
</form>
`;
}

/** What is said after something was sent, and where nothing more is to be seen. */
export function saidPage(language: Language, title: string, text: string): string {
  return pageOf(
    language,
    title,
    new Html('<meta name="robots" content="noindex">\n'),
    html`<h1>${title}</h1>
<p class="terms">${text}</p>
`,
  );
}

/** For every other name: nothing tells whether it is ours. */
export const NOTHING_HERE = `<!doctype html>
<html lang="en"><head><meta charset="utf-8"><title>404</title></head><body><h1>404</h1></body></html>
`;
