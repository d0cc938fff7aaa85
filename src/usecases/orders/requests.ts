import { Type } from 'class-transformer';
import {
  ArrayMaxSize,
  ArrayNotEmpty,
  IsArray,
  IsBoolean,
  IsIn,
  IsInt,
  IsOptional,
  IsString,
  IsUUID,
  Max,
  MaxLength,
  Min,
  ValidateNested,
} from 'class-validator';
import { GREATEST_MINOR } from '@/core/money';
import type { Day } from '@/core/time';
import { OneLine } from '../texts';
import { CurrencyCode, WrittenDay } from '../validate';

/** A code that the registrar knows, a percentage that it takes off, or both. */
export class PromotionTerms {
  @IsOptional()
  @IsString()
  @OneLine()
  @MaxLength(60)
  code?: string;

  @IsOptional()
  @Type(() => Number)
  @Min(0, { message: 'A promotion takes 0 to 100 percent off.' })
  @Max(100, { message: 'A promotion takes 0 to 100 percent off.' })
  percent?: number;
}

export class RenewalItem {
  @Type(() => Number)
  @IsInt()
  nameId!: number;

  @Type(() => Number)
  @IsInt({ message: 'Choose a whole number of years.' })
  @Min(1)
  @Max(99)
  years!: number;
}

/** Names to renew or restore, a term for each, and what changes the price of all. */
/** What changes the price of a run. */
export class PriceTerms {
  @IsOptional()
  @ValidateNested()
  @Type(() => PromotionTerms)
  promotion?: PromotionTerms;

  @IsOptional()
  @Type(() => Number)
  @Min(0, { message: 'Tax is 0 to 100 percent.' })
  @Max(100, { message: 'Tax is 0 to 100 percent.' })
  taxPercent?: number;
}

export class QuoteRenewal extends PriceTerms {
  /** A restore buys a year with it. */
  @IsOptional()
  @IsIn(['renew', 'restore'])
  action?: 'renew' | 'restore';

  @IsArray()
  @ArrayNotEmpty({ message: 'Choose at least one name.' })
  @ArrayMaxSize(1000, { message: 'Renew up to 1,000 names at a time.' })
  @ValidateNested({ each: true })
  @Type(() => RenewalItem)
  items!: RenewalItem[];
}

/** What really happened with one name at the registrar's site. */
export class ConfirmedItem {
  @Type(() => Number)
  @IsInt()
  nameId!: number;

  @IsBoolean()
  done!: boolean;

  @IsOptional()
  @Type(() => Number)
  @IsInt()
  @Min(0, { message: 'Write the amount without a sign.' })
  @Max(GREATEST_MINOR, { message: 'That is more than a renewal can cost. Check the amount.' })
  chargedMinor?: number;

  /** Of the amount charged; that of the quote when left out. */
  @IsOptional()
  @CurrencyCode()
  currency?: string;
}

export class ConfirmRenewal {
  @IsUUID()
  id!: string;

  @IsArray()
  @ArrayNotEmpty()
  @ValidateNested({ each: true })
  @Type(() => ConfirmedItem)
  items!: ConfirmedItem[];

  @WrittenDay()
  chargedOn!: Day;

  @IsOptional()
  @IsString()
  @MaxLength(100)
  paymentMethod?: string;

  @IsOptional()
  @IsString()
  @MaxLength(200)
  reference?: string;
}

export class MoveRenewal {
  @IsUUID()
  id!: string;

  @IsIn(['requested', 'dropped'])
  to!: 'requested' | 'dropped';
}

/** By which of its payment methods an account pays in a run; without one in its usual order. */
export class PayBy {
  @IsUUID()
  id!: string;

  @Type(() => Number)
  @IsInt()
  accountId!: number;

  @IsOptional()
  @IsString()
  @MaxLength(60)
  paymentMethod?: string;
}
