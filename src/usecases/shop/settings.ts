import { Type } from 'class-transformer';
import {
  ArrayMaxSize,
  IsArray,
  IsBoolean,
  IsEmail,
  IsIn,
  IsInt,
  IsIP,
  IsNumber,
  IsObject,
  IsOptional,
  IsString,
  IsUrl,
  Matches,
  Max,
  MaxLength,
  Min,
} from 'class-validator';
import { GREATEST_MINOR } from '@/core/money';
import { isRefusal, type Refusal, refuse } from '@/core/refusal';
import { LANGUAGE_TAGS, type Language, mailboxOf, refuseText, TEXT_KEYS, type TextKey } from '@/core/shop';
import {
  type BlockedRow as BlockedSender,
  deleteBlocked,
  insertBlocked,
  type LetterRow,
  lockLetter,
  selectBlocked,
  selectDeposits,
  updateLetter,
} from '@/database/letters';
import { type ShopSettings, selectSettings, upsertSettings } from '@/database/settings';
import { changing } from '../changing';
import type { Deps } from '../deps';
import { command } from '../people/command';
import { readPrice } from '../selling/readPrice';
import { CurrencyCode, readRequest } from '../validate';
import { placeLetter } from './acts';

const MOST_ADDRESSES = 8;
const HOST = /^[a-z0-9-]{1,63}(\.[a-z0-9-]{1,63})+$/;
/** RFC 1035 section 2.3.4. */
const LONGEST_HOST = 253;
const HOST_WORDS = { message: 'Write a host like shop.harbour.example.' };

/** How names are shown to buyers, and what has to be set for that. */
export class ShopForm {
  /** Where buyers' own pages stand. Left out: nothing is taken in the windows. */
  @IsOptional()
  @IsUrl(
    { require_tld: false, protocols: ['https', 'http'], require_protocol: true, disallow_auth: true },
    { message: 'Write an address like https://offers.harbour.example.' },
  )
  @MaxLength(200)
  url?: string;

  @IsBoolean()
  robots!: boolean;

  /** From which bid on a deposit is wanted, in minor units. */
  @IsOptional()
  @Type(() => Number)
  @IsInt({ message: 'Write an amount of money.' })
  @Min(0)
  @Max(GREATEST_MINOR)
  depositFromMinor?: number;

  @IsOptional()
  @CurrencyCode()
  depositCurrency?: string;

  @IsOptional()
  @Type(() => Number)
  @IsNumber({}, { message: 'Write a share like 10.' })
  @Min(0.1, { message: 'Write a share above 0 %.' })
  @Max(100, { message: 'Write a share up to 100 %.' })
  depositPercent?: number;

  @IsArray()
  @ArrayMaxSize(MOST_ADDRESSES)
  @IsIP(4, { each: true, message: 'Write addresses like 203.0.113.7.' })
  a!: string[];

  @IsArray()
  @ArrayMaxSize(MOST_ADDRESSES)
  @IsIP(6, { each: true, message: 'Write addresses like 2001:db8::7.' })
  aaaa!: string[];

  @IsOptional()
  @MaxLength(LONGEST_HOST, HOST_WORDS)
  @Matches(HOST, HOST_WORDS)
  cname?: string;

  /** The directory of a server that gives certificates by ACME (RFC 8555). Left out: a proxy has them. */
  @IsOptional()
  @IsUrl(
    { require_tld: false, protocols: ['https', 'http'], require_protocol: true, disallow_auth: true },
    { message: 'Write an address like https://certificates.example/directory.' },
  )
  @MaxLength(300)
  acmeDirectory?: string;

  @IsOptional()
  @IsEmail({ require_tld: false }, { message: 'Write a mail address like office@harbour.example.' })
  acmeMail?: string;

  @IsArray()
  @ArrayMaxSize(MOST_ADDRESSES)
  @MaxLength(LONGEST_HOST, { each: true, ...HOST_WORDS })
  @Matches(HOST, { each: true, ...HOST_WORDS })
  nameServers!: string[];
}

/** Whether what is sent there can be read on its way; a link of a buyer and an order of a certificate must not be (RFC 8555 section 6.1). */
function isOpenAddress(address: string): boolean {
  const { protocol, hostname } = new URL(address);
  return protocol !== 'https:' && !/^(localhost|127\.\d+\.\d+\.\d+|\[::1\])$/.test(hostname);
}

/** How the windows are set. */
export async function shopSettings(deps: Deps): Promise<ShopSettings> {
  return (await selectSettings(deps.database)).shop;
}

export type { BlockedSender, ShopSettings };

/** Sets how names are shown to buyers. */
export const saveShop = command('saveShop', async (deps: Deps, input: unknown): Promise<true | Refusal> => {
  const form = await readRequest(ShopForm, input);
  if (isRefusal(form)) return form;
  const { url, robots, depositFromMinor, depositCurrency, depositPercent, a, aaaa, cname, nameServers } = form;
  if (depositPercent !== undefined && (depositFromMinor === undefined || depositCurrency === undefined))
    return refuse('deposit-from-missing', 'Write from which bid on a deposit is wanted.', 'depositFromMinor');
  const { acmeDirectory, acmeMail } = form;
  if (acmeDirectory !== undefined && acmeMail === undefined)
    return refuse(
      'acme-mail-missing',
      'Write where the server may write to when a certificate is about to end.',
      'acmeMail',
    );
  for (const [field, address] of Object.entries({ url, acmeDirectory }))
    if (address !== undefined && isOpenAddress(address))
      return refuse('address-not-secure', 'Write an address that begins with https: beyond this machine.', field);
  await changing(deps, async (tx) => {
    const { shop } = await selectSettings(tx);
    await upsertSettings(tx, {
      shop: {
        ...shop,
        acme:
          acmeDirectory === undefined || acmeMail === undefined ? null : { directory: acmeDirectory, mail: acmeMail },
        url: url?.replace(/\/+$/, '') ?? null,
        robots,
        deposit:
          depositPercent === undefined || depositFromMinor === undefined || depositCurrency === undefined
            ? null
            : { percent: depositPercent, fromMinor: depositFromMinor, currency: depositCurrency },
        place: { a, aaaa, cname: cname ?? null, nameServers },
      },
    });
  });
  return true;
});

/** Texts of the office's own in one language; a text that is left out is as it ships. */
export class ShopTextsForm {
  @IsIn(LANGUAGE_TAGS)
  language!: Language;

  @IsObject()
  texts!: Record<string, string>;
}

/** Sets what buyers read in one language. */
export const saveShopTexts = command('saveShopTexts', async (deps: Deps, input: unknown): Promise<true | Refusal> => {
  const form = await readRequest(ShopTextsForm, input);
  if (isRefusal(form)) return form;
  const entries = Object.entries(form.texts);
  for (const [key, text] of entries) {
    if (!(TEXT_KEYS as readonly string[]).includes(key) || typeof text !== 'string')
      return refuse('text-unknown', `There is no text “${key.slice(0, 40)}”.`);
    const refused = refuseText(key as TextKey, text);
    if (refused) return refused;
  }
  await changing(deps, async (tx) => {
    const { shop } = await selectSettings(tx);
    await upsertSettings(tx, {
      shop: { ...shop, texts: { ...shop.texts, [form.language]: Object.fromEntries(entries) } },
    });
  });
  return true;
});

export class SenderForm {
  /** A mail address, or `@host` for every address there. */
  @IsString()
  @MaxLength(254)
  @Matches(/^[^\s@]*@[^\s@]+$/, { message: 'Write a mail address, or @host for all of a host.' })
  sender!: string;
}

export function blockedSenders(deps: Deps): Promise<BlockedSender[]> {
  return selectBlocked(deps.database);
}

/** Hears nothing more of a sender; he is not told. */
export const blockSender = command('blockSender', async (deps: Deps, input: unknown): Promise<true | Refusal> => {
  const form = await readRequest(SenderForm, input);
  if (isRefusal(form)) return form;
  await changing(deps, (tx, { at }) => insertBlocked(tx, mailboxOf(form.sender), at));
  return true;
});

/** Hears a sender again. */
export const unblockSender = command('unblockSender', async (deps: Deps, input: unknown): Promise<true | Refusal> => {
  const form = await readRequest(SenderForm, input);
  if (isRefusal(form)) return form;
  const done = await changing(deps, (tx) => deleteBlocked(tx, mailboxOf(form.sender)));
  return done || refuse('sender-not-blocked', 'This sender is not blocked. Load the page again.');
});

/** A deposit that the office waits for, or that it has to give back once the auction has ended. Amounts are minor units. */
export type Deposit = Omit<LetterRow, 'tokenSealed'>;

/** Deposits that the office waits for, and that it has to give back. */
export async function deposits(deps: Deps): Promise<Deposit[]> {
  return (await selectDeposits(deps.database)).map(({ tokenSealed, ...deposit }) => deposit);
}

export class TakeDepositForm {
  @IsInt()
  letterId!: number;

  @IsString()
  @MaxLength(20)
  amount!: string;
}

const DEPOSIT_GONE = refuse('deposit-unknown', 'This bid is no longer there. Load the page again.');

/** Takes down a deposit that has come; the bid that waited for it is placed at once. */
export const takeDeposit = command('takeDeposit', async (deps: Deps, input: unknown): Promise<true | Refusal> => {
  const form = await readRequest(TakeDepositForm, input);
  if (isRefusal(form)) return form;
  return changing(deps, async (tx) => {
    const letter = await lockLetter(tx, form.letterId);
    if (letter?.kind !== 'bid' || letter.confirmedAt === null) return DEPOSIT_GONE;
    const price = readPrice(form.amount, letter.currency, 'amount');
    if (isRefusal(price)) return price;
    if (price === null) return refuse('price-missing', 'Write what has come, like 120.', 'amount');
    const heldMinor = letter.heldMinor + price.minor;
    await updateLetter(tx, letter.id, { heldMinor, over: false });
    if (letter.minor > (letter.placedMinor ?? 0)) await placeLetter(tx, deps, { ...letter, heldMinor });
    return true;
  });
});

export class ReturnDepositForm {
  @IsInt()
  letterId!: number;
}

/** Takes down that a deposit was given back. */
export const returnDeposit = command('returnDeposit', async (deps: Deps, input: unknown): Promise<true | Refusal> => {
  const form = await readRequest(ReturnDepositForm, input);
  if (isRefusal(form)) return form;
  return changing(deps, async (tx, { at }) => {
    const letter = await lockLetter(tx, form.letterId);
    if (!letter || letter.heldMinor === 0 || letter.returnedAt !== null) return DEPOSIT_GONE;
    await updateLetter(tx, letter.id, { returnedAt: at });
    return true;
  });
});
