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
  MinLength,
  ValidateNested,
} from 'class-validator';
import { GREATEST_MINOR, isCurrency } from '@/core/money';
import { PLAIN_PRICE } from '@/core/pricing';
import { isRefusal, type Refusal, refuse } from '@/core/refusal';
import { type Day, dayOf, FIRST_DAY, formatInstant, LAST_DAY, startOfDay } from '@/core/time';
import { selectAccounts, updateMeans } from '@/database/accounts';
import { upsertPrices } from '@/database/prices';
import { PaymentMethodForm } from '../accounts/requests';
import { changing, type Done } from '../changing';
import type { Deps } from '../deps';
import { command } from '../people/command';
import { OneLine } from '../texts';
import { CurrencyCode, readRequest, WrittenDay } from '../validate';
import { MOST_NAMES } from './requests';

class SaidEnd {
  @Type(() => Number)
  @IsInt()
  nameId!: number;

  @WrittenDay()
  day!: Day;
}

/** The ends of terms that nobody had said, name by name, with what they rest on. */
export class SayEnds {
  @IsArray()
  @ArrayNotEmpty({ message: 'Write at least one end.' })
  @ArrayMaxSize(MOST_NAMES)
  @ValidateNested({ each: true })
  @Type(() => SaidEnd)
  ends!: SaidEnd[];

  @IsString()
  @MinLength(1, { message: 'Write where you saw it: it is kept with the ends.' })
  @MaxLength(400)
  @OneLine()
  evidence!: string;
}

/** Sets the ends of many names, each its own, in one change that can be taken back. */
export const sayEnds = command('sayEnds', async (deps: Deps, input: unknown): Promise<Done | Refusal> => {
  const request = await readRequest(SayEnds, input);
  if (isRefusal(request)) return request;
  const { ends, evidence } = request;
  const wrong = ends.find(({ day }) => day < FIRST_DAY || day >= LAST_DAY);
  if (wrong) return refuse('date-out-of-range', `${wrong.day} is not a day between 1985 and 2099. Check it.`, 'ends');
  const summary = `Said ${ends.length === 1 ? 'one end of term' : `${ends.length} ends of term`}`;
  return changing(deps, (_tx, change) =>
    change.names(
      'edit',
      summary,
      ends.map(({ nameId, day }) => ({
        nameId,
        patch: { term_end: formatInstant(startOfDay(day)), term_end_day: true },
        evidence,
      })),
    ),
  );
});

class SaidPrice {
  @Type(() => Number)
  @IsInt()
  accountId!: number;

  @IsString()
  @MaxLength(253)
  ending!: string;

  @CurrencyCode()
  currency!: string;

  @Type(() => Number)
  @IsInt({ message: 'Write a price like 11.38.' })
  @Min(0, { message: 'Write the price without a sign.' })
  @Max(GREATEST_MINOR, { message: 'That is more than a year of a name can cost. Check it.' })
  yearMinor!: number;
}

/** Renewal prices that nobody had said, by account and ending. */
export class SayPrices {
  @IsArray()
  @ArrayNotEmpty({ message: 'Write at least one price.' })
  @ArrayMaxSize(2000)
  @ValidateNested({ each: true })
  @Type(() => SaidPrice)
  prices!: SaidPrice[];

  @IsOptional()
  @IsString()
  @MaxLength(200)
  @OneLine()
  source?: string;
}

/** Writes what a year costs from today on, for several accounts and endings at once. Answers how many. */
export const sayPrices = command('sayPrices', async (deps: Deps, input: unknown): Promise<number | Refusal> => {
  const request = await readRequest(SayPrices, input);
  if (isRefusal(request)) return request;
  const { prices, source } = request;
  const unknown = prices.find(({ currency }) => !isCurrency(currency));
  if (unknown) return refuse('currency-unknown', `${unknown.currency} is not a currency code of ISO 4217.`, 'prices');
  const known = new Set((await selectAccounts(deps.database)).map(({ id }) => id));
  if (prices.some(({ accountId }) => !known.has(accountId)))
    return refuse('account-unknown', 'One of these accounts is no longer there. Load the page again.');
  const from = dayOf(deps.clock());
  await changing(deps, (tx) =>
    upsertPrices(
      tx,
      prices.map((price) => ({
        ...PLAIN_PRICE,
        ...price,
        nameId: null,
        action: 'renew' as const,
        from,
        origin: 'by hand' as const,
        source: source?.trim() ?? '',
      })),
    ),
  );
  return prices.length;
});

class SaidMeans {
  @Type(() => Number)
  @IsInt()
  accountId!: number;

  @IsArray()
  @ArrayNotEmpty({ message: 'Say what it pays from.' })
  @ArrayMaxSize(10)
  @ValidateNested({ each: true })
  @Type(() => PaymentMethodForm)
  paymentMethods!: PaymentMethodForm[];

  @IsOptional()
  @Type(() => Number)
  @IsInt({ message: 'Write the balance like 120.00.' })
  @Min(-GREATEST_MINOR)
  @Max(GREATEST_MINOR)
  balanceMinor?: number;
}

/** What accounts pay from, where nobody had said it. */
export class SayMeans {
  @IsArray()
  @ArrayNotEmpty({ message: 'Say it of at least one account.' })
  @ArrayMaxSize(200)
  @ValidateNested({ each: true })
  @Type(() => SaidMeans)
  means!: SaidMeans[];
}

/** Writes what several accounts pay from, and what stands there. Everything else of them stays. Answers how many. */
export const sayMeans = command('sayMeans', async (deps: Deps, input: unknown): Promise<number | Refusal> => {
  const request = await readRequest(SayMeans, input);
  if (isRefusal(request)) return request;
  const means = request.means.map(({ accountId, paymentMethods, balanceMinor = null }) => ({
    accountId,
    balanceMinor,
    paymentMethods: paymentMethods.map(({ kind, label, endsMonth }) => ({
      kind,
      label: label.trim() || kind,
      endsMonth: kind === 'card' ? (endsMonth ?? null) : null,
    })),
  }));
  return changing(deps, async (tx, { at }) => {
    const written = await updateMeans(tx, means, at);
    return written === means.length
      ? written
      : refuse('account-unknown', 'One of these accounts is no longer there. Load the page again.');
  });
});
