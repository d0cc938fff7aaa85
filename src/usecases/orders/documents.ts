import { createHash } from 'node:crypto';
import { Type } from 'class-transformer';
import {
  ArrayMaxSize,
  ArrayNotEmpty,
  IsArray,
  IsInt,
  IsOptional,
  IsString,
  Max,
  MaxLength,
  Min,
  ValidateNested,
} from 'class-validator';
import { parseDecimal } from '@/core/money';
import { parseDomainName } from '@/core/names';
import { isRefusal, type Refusal, refuse } from '@/core/refusal';
import { dayOf, formatInstant } from '@/core/time';
import { selectNameIds } from '@/database/names';
import { bindKey, selectRenewalByKey } from '@/database/renewals';
import type { Deps } from '../deps';
import { moneyDocument } from '../names/nameDocument';
import { MoneyText } from '../names/requests';
import { readRequest, WrittenDay } from '../validate';
import { confirmRenewal } from './confirm';
import { planRenewal } from './plan';
import { quoteRenewal, type RenewalQuote } from './quote';
import { PriceTerms } from './requests';

export class NamedItem {
  @IsString()
  @MaxLength(253)
  name!: string;

  @Type(() => Number)
  @IsInt({ message: 'Choose a whole number of years.' })
  @Min(1)
  @Max(99)
  years!: number;

  /** What was charged, for a renewal that is reported as done; the quote when left out. */
  @IsOptional()
  @ValidateNested()
  @Type(() => MoneyText)
  charged?: MoneyText;
}

/** Names and terms as another program sends them. */
export class NamedRenewal extends PriceTerms {
  @IsArray()
  @ArrayNotEmpty({ message: 'Choose at least one name.' })
  @ArrayMaxSize(1000)
  @ValidateNested({ each: true })
  @Type(() => NamedItem)
  items!: NamedItem[];

  @IsOptional()
  @WrittenDay()
  chargedOn?: string;

  @IsOptional()
  @IsString()
  @MaxLength(100)
  paymentMethod?: string;

  @IsOptional()
  @IsString()
  @MaxLength(200)
  reference?: string;
}

async function withIds(deps: Deps, items: readonly NamedItem[]): Promise<(NamedItem & { nameId: number })[] | Refusal> {
  const parsed = items.map((item) => parseDomainName(item.name, { allowPrivateEndings: true }));
  const refused = parsed.find(isRefusal);
  if (refused) return refused;
  const ids = await selectNameIds(
    deps.database,
    parsed.flatMap((name) => (isRefusal(name) ? [] : [name.ascii])),
  );
  const found: (NamedItem & { nameId: number })[] = [];
  for (const [i, item] of items.entries()) {
    const name = parsed[i];
    const nameId = name && !isRefusal(name) ? ids.get(name.ascii) : undefined;
    if (nameId === undefined)
      return refuse('name-not-in-ledger', `${item.name} is not in the ledger. Import it first.`);
    found.push({ ...item, nameId });
  }
  return found;
}

function quoteDocument(quote: RenewalQuote) {
  return {
    items: quote.items.map((item) => ({
      name: item.ascii,
      years: item.years,
      from: item.oldEnd && formatInstant(item.oldEnd.at),
      to: item.newEnd && formatInstant(item.newEnd.at),
      cost: moneyDocument(item.total),
      lateFee: moneyDocument(item.lateFee),
      refused: item.refusal && { code: item.refusal.code, message: item.refusal.message },
    })),
    totals: quote.totals.map(moneyDocument),
  };
}

/** What renewing would do and cost. Writes nothing. */
export async function quoteByName(deps: Deps, body: unknown) {
  const request = await readRequest(NamedRenewal, body);
  if (isRefusal(request)) return request;
  const items = await withIds(deps, request.items);
  if (isRefusal(items)) return items;
  const quote = await quoteRenewal(deps, {
    items: items.map(({ nameId, years }) => ({ nameId, years })),
    promotion: request.promotion,
    taxPercent: request.taxPercent,
  });
  return isRefusal(quote) ? quote : quoteDocument(quote);
}

/**
 * Takes down renewals that were carried out at the registrar. `key` is the idempotency key: sent again, the same key
 * writes nothing and answers the same.
 */
export async function renewByName(deps: Deps, body: unknown, key: string | null) {
  if (key === null || key === '' || key.length > 200)
    return refuse(
      'idempotency-key-missing',
      'Send an Idempotency-Key header of up to 200 letters, a new one for each renewal.',
    );
  const request = await readRequest(NamedRenewal, body);
  if (isRefusal(request)) return request;
  const items = await withIds(deps, request.items);
  if (isRefusal(items)) return items;
  const before = await selectRenewalByKey(deps.database, key);
  const isSame = () => bindKey(deps.database, key, requestHash(request));
  if (before && !(await isSame())) return KEY_REUSED;
  if (before?.status === 'confirmed') return renewalDocument(deps, before.id, key);
  const planned = await planRenewal(
    deps,
    {
      items: items.map(({ nameId, years }) => ({ nameId, years })),
      promotion: request.promotion,
      taxPercent: request.taxPercent,
    },
    key,
  );
  if (isRefusal(planned)) return planned;
  if (!(await isSame())) return KEY_REUSED;
  const refused = planned.quote.items.find((item) => item.refusal)?.refusal;
  if (refused) return refused;
  const charged: { nameId: number; done: true; chargedMinor?: number; currency?: string }[] = [];
  for (const item of items) {
    const amount = item.charged ? parseDecimal(item.charged.amount, item.charged.currency) : null;
    if (item.charged && (!amount || amount.minor < 0))
      return refuse('request-invalid', 'charged is not an amount of that currency.', 'items');
    charged.push({
      nameId: item.nameId,
      done: true,
      ...(amount ? { chargedMinor: amount.minor, currency: amount.currency } : {}),
    });
  }
  const chargedOn = request.chargedOn ?? dayOf(deps.clock());
  const done = await confirmRenewal(deps, {
    id: planned.renewal.id,
    items: charged,
    chargedOn,
    paymentMethod: request.paymentMethod,
    reference: request.reference,
  });
  return isRefusal(done) ? done : renewalDocument(deps, planned.renewal.id, key);
}

const KEY_REUSED = refuse(
  'idempotency-key-reused',
  'This Idempotency-Key came with another request before. Send a new key with each new request.',
);

/** What a request asks for, in whatever order its members come. */
function requestHash(request: NamedRenewal): Buffer {
  const sorted = (value: unknown): unknown =>
    typeof value !== 'object' || value === null
      ? value
      : Array.isArray(value)
        ? value.map(sorted)
        : Object.fromEntries(
            Object.entries(value)
              .sort(([a], [b]) => (a < b ? -1 : 1))
              .map(([key, member]) => [key, sorted(member)]),
          );
  return createHash('sha256')
    .update(JSON.stringify(sorted(request)))
    .digest();
}

async function renewalDocument(deps: Deps, id: string, key: string) {
  const renewal = await selectRenewalByKey(deps.database, key);
  return {
    id,
    status: renewal?.status ?? 'confirmed',
    items: (renewal?.items ?? []).map((item) => ({
      name: item.ascii,
      years: item.years,
      from: formatInstant(item.oldEnd),
      to: item.newEnd === null ? null : formatInstant(item.newEnd),
      charged:
        item.chargedMinor === null || item.currency === null
          ? null
          : moneyDocument({ minor: item.chargedMinor, currency: item.currency }),
      quoted:
        item.quotedMinor === null || item.currency === null
          ? null
          : moneyDocument({ minor: item.quotedMinor, currency: item.currency }),
    })),
  };
}
