import { createHash } from 'node:crypto';
import { isEmail } from 'class-validator';
import type { Rate } from '@/core/money';
import { isRefusal } from '@/core/refusal';
import {
  depositFor,
  type Language,
  LETTER_KINDS,
  type LetterKind,
  leastOf,
  mailboxOf,
  money,
  readBuyersAmount,
  sendersOf,
  type TextKey,
} from '@/core/shop';
import { isOneLine, refuseText } from '@/core/text/plainText';
import type { Instant } from '@/core/time';
import { insertLetter, isBlocked, mayMailLink, setLetterToken } from '@/database/letters';
import { transaction } from '@/database/pool';
import { selectRates } from '@/database/rates';
import { sealPlace } from '@/database/secrets';
import type { Deps } from '../deps';
import { hashOf, newToken } from '../people/tokens';
import { seal } from '../secrets/seal';
import { isWithin } from './limits';
import { shopKey, shopNow } from './taking';
import { currenciesFor, type ShopWindow, takenIn, windowOf } from './window';

/** What was typed into the form of a window, as it came. */
export interface Typed {
  readonly kind: string;
  readonly buyer: string;
  readonly mail: string;
  readonly amount: string;
  readonly currency: string;
  readonly message: string;
}

/** From where a letter comes. `proved`: its browser has done the work that keeps machines from sending many. */
export interface Sender {
  readonly address: string;
  readonly language: Language;
  readonly proved: boolean;
}

/** What a buyer is told who has sent something that cannot be taken: a text, what belongs into it, and at which field. */
export interface NotTaken {
  readonly text: TextKey;
  readonly said?: Readonly<Record<string, string>>;
  readonly field?: 'buyer' | 'mail' | 'amount';
}

/** Characters that are kept. */
export const LONGEST = { buyer: 120, mail: 254, message: 400 } as const;

/** Takes a letter from a window: it is mailed a link, and reaches the office once that has been opened and confirmed. `null` when it was taken. */
export async function sendLetter(deps: Deps, typedName: string, typed: Typed, from: Sender): Promise<NotTaken | null> {
  if (!(await isWithin(deps, 'letters', from.address))) return { text: 'tooOften' };
  const [now, window] = await Promise.all([shopNow(deps), windowOf(deps, typedName)]);
  if (window === null) return { text: 'noLonger' };
  const key = shopKey(deps);
  if (!now.takes || key === null) return { text: 'notNow' };
  const rates = await selectRates(deps.database);
  const read = readLetter(window, typed, from.language, rates, deps);
  if ('text' in read) return read;
  if (!(await isWithinAll(deps, window, read.mail, from))) return { text: 'tooOften' };
  // Who is not heard is not told so either.
  if (await isBlocked(deps.database, sendersOf(read.mail))) return null;
  const at = deps.clock();
  const token = newToken();
  const isKept = await transaction(deps.database, async (tx) => {
    if (!(await mayMailLink(tx, read.mail, mailHash(read.mail), at))) return false;
    const id = await insertLetter(tx, {
      ...read,
      nameId: window.nameId,
      auctionId: read.kind === 'bid' ? (window.auctionId ?? null) : null,
      language: from.language,
      depositMinor: read.kind === 'bid' ? depositFor(now.deposit, read.minor, read.currency, rates, at) : 0,
      askedAt: at,
      tokenHash: hashOf(token),
    });
    await setLetterToken(tx, id, await seal(key, sealPlace.letter(id), token));
    return true;
  });
  return isKept ? null : { text: 'mailedBefore', field: 'mail' };
}

/** Only the hash of an address is kept of whoever never answers. */
const mailHash = (mail: string) => createHash('sha256').update(mailboxOf(mail)).digest();

async function isWithinAll(deps: Deps, { ascii }: ShopWindow, mail: string, from: Sender): Promise<boolean> {
  if (!(await isWithin(deps, 'name', `${from.address} ${ascii}`))) return false;
  if (!from.proved && !((await isWithin(deps, 'unproved', from.address)) && (await isWithin(deps, 'unproved world'))))
    return false;
  return (await isWithin(deps, 'mail', mailboxOf(mail))) && (await isWithin(deps, 'world'));
}

interface ReadLetter {
  readonly kind: LetterKind;
  readonly buyer: string;
  readonly mail: string;
  readonly minor: number;
  readonly currency: string;
  readonly message: string;
}

/** Reads what was typed, against the window as it is now. */
function readLetter(
  window: ShopWindow,
  typed: Typed,
  language: Language,
  rates: readonly Rate[],
  { clock }: Pick<Deps, 'clock'>,
): ReadLetter | NotTaken {
  const kind = LETTER_KINDS.find((one) => one === typed.kind);
  if (kind === undefined || !takenIn(window).includes(kind)) return { text: 'noLonger' };
  const buyer = typed.buyer.trim();
  if (buyer === '' || buyer.length > LONGEST.buyer || !isOneLine(buyer) || /[<>]/.test(buyer) || refuseText(buyer))
    return { text: 'nameMissing', field: 'buyer' };
  const mail = typed.mail.trim();
  if (mail.length > LONGEST.mail || !isEmail(mail, { require_tld: false })) return { text: 'mailWrong', field: 'mail' };
  const message = cutTo(typed.message.trim(), LONGEST.message);
  if (refuseText(message)) return { text: 'tooQuick' };
  const figure = figureIn(kind, window, typed, language, rates, clock());
  return 'text' in figure ? figure : { kind, buyer, mail, message, ...figure };
}

/** A text of so many characters at most, none of them cut in two. */
export function cutTo(text: string, most: number): string {
  return text.length <= most ? text : [...text].slice(0, most).join('');
}

/** The amount of a letter, within what the window says: below the least is said at once, with the least. */
export function figureIn(
  kind: LetterKind,
  window: ShopWindow,
  typed: Pick<Typed, 'amount' | 'currency'>,
  language: Language,
  rates: readonly Rate[],
  now: Instant,
): { minor: number; currency: string } | NotTaken {
  if (kind === 'purchase') return { minor: window.priceMinor ?? 0, currency: window.currency };
  const currency = kind === 'offer' ? typed.currency || window.currency : window.currency;
  const example = {
    amount: money(120_000, 'USD', language)
      .replace(/[^\d.,\s]/g, '')
      .trim(),
  };
  if (!currenciesFor(window, rates).includes(currency)) return { text: 'amountUnread', said: example, field: 'amount' };
  const figure = typed.amount.length > 40 ? null : readBuyersAmount(typed.amount, currency, language);
  if (figure === null || isRefusal(figure) || figure.minor <= 0)
    return { text: 'amountUnread', said: example, field: 'amount' };
  const least = leastOf(kind, window, currency, rates, now);
  return least !== null && figure.minor < least.minor
    ? { text: 'belowLeast', said: { amount: money(least.minor, currency, language) }, field: 'amount' }
    : { minor: figure.minor, currency };
}
