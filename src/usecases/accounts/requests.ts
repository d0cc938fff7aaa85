import { Type } from 'class-transformer';
import {
  ArrayMaxSize,
  IsArray,
  IsBoolean,
  IsEmail,
  IsIn,
  IsInt,
  IsOptional,
  IsString,
  Matches,
  Max,
  MaxLength,
  Min,
  MinLength,
  ValidateIf,
  ValidateNested,
} from 'class-validator';
import { PAYMENT_METHOD_KINDS, type PaymentMethodKind } from '@/core/funding';
import { GREATEST_MINOR } from '@/core/money';
import { PRICE_ACTIONS, type PriceAction } from '@/core/pricing';
import type { Day } from '@/core/time';
import { OneLine } from '../texts';
import { CurrencyCode, WrittenDay } from '../validate';

export class PaymentMethodForm {
  @IsIn(PAYMENT_METHOD_KINDS, { message: 'Choose balance, card, wallet or bank.' })
  kind!: PaymentMethodKind;

  @IsString({ message: 'Give it a name.' })
  @MaxLength(60, { message: 'A name has 60 letters at most.' })
  @OneLine()
  label!: string;

  @IsOptional()
  @Matches(/^\d{4}-(0[1-9]|1[0-2])$/, { message: 'Write the month like 02/27.' })
  endsMonth?: string;
}

/** An account as Setup writes it. */
export class AccountForm {
  @IsString()
  @MaxLength(60, { message: 'A label has 60 letters at most.' })
  @OneLine()
  label!: string;

  @IsOptional()
  @IsString()
  @MaxLength(100)
  registrar?: string;

  @CurrencyCode()
  currency!: string;

  @Type(() => Number)
  @IsInt()
  @Min(0)
  @Max(90, { message: 'An account charges 0 to 90 days before the end.' })
  leadDays!: number;

  @Type(() => Number)
  @IsInt()
  @Min(0)
  @Max(400, { message: 'A late window (grace period) has 0 to 400 days.' })
  lateDays!: number;

  /** How long the registrar may take to confirm a switch. */
  @IsOptional()
  @Type(() => Number)
  @IsInt()
  @Min(0)
  @Max(720, { message: 'A switch is confirmed within 0 to 720 hours.' })
  switchHours?: number;

  @IsOptional()
  @Type(() => Number)
  @IsInt()
  @Min(0, { message: 'Write the late fee without a sign.' })
  @Max(GREATEST_MINOR, { message: 'That is more than a late fee can be. Check it.' })
  lateFeeMinor?: number;

  @IsOptional()
  @Type(() => Number)
  @IsInt()
  @Min(0)
  @Max(400)
  auctionDay?: number;

  @Type(() => Number)
  @IsInt()
  @Min(1)
  @Max(10, { message: 'One charge buys 1 to 10 years.' })
  yearsPerCharge!: number;

  @IsOptional()
  @IsArray()
  @ArrayMaxSize(20)
  @IsInt({ each: true, message: 'Write days as whole numbers, like 3, 1.' })
  @Min(0, { each: true })
  @Max(90, { each: true })
  retryDays?: number[];

  @IsOptional()
  @Type(() => Number)
  @Min(0)
  @Max(100, { message: 'Tax is 0 to 100 percent.' })
  taxPercent?: number;

  @IsOptional()
  @IsBoolean()
  refunds?: boolean;

  /** A name is transferred to it only once its zone has been loaded there. */
  @IsOptional()
  @IsBoolean()
  wantsZone?: boolean;

  /** In whose name it registers. */
  @IsOptional()
  @IsString()
  @OneLine()
  @MaxLength(200)
  holder?: string;

  @IsOptional()
  @IsEmail({}, { message: 'Write a mail address like names@office.example.' })
  @MaxLength(254)
  holderMail?: string;

  @IsOptional()
  @Type(() => Number)
  @IsInt()
  @Min(-GREATEST_MINOR)
  @Max(GREATEST_MINOR, { message: 'That is more than a balance can be. Check it.' })
  balanceMinor?: number;

  @IsArray()
  @ArrayMaxSize(20)
  @ValidateNested({ each: true })
  @Type(() => PaymentMethodForm)
  paymentMethods!: PaymentMethodForm[];

  @IsOptional()
  @IsString()
  @MaxLength(4000)
  notes?: string;
}

/** One row of a price list as Setup writes it. A name makes it that name's own price. */
export class PriceForm {
  @Type(() => Number)
  @IsInt()
  accountId!: number;

  @IsOptional()
  @IsString()
  @MaxLength(253)
  name?: string;

  @IsOptional()
  @IsString()
  @MaxLength(253)
  ending?: string;

  @IsIn(PRICE_ACTIONS, { message: `Choose one of ${PRICE_ACTIONS.join(', ')}.` })
  action!: PriceAction;

  @CurrencyCode()
  currency!: string;

  @Type(() => Number)
  @IsInt()
  @Min(0, { message: 'Write the price without a sign.' })
  @Max(GREATEST_MINOR, { message: 'That is more than a year of a name can cost. Check it.' })
  yearMinor!: number;

  @IsOptional()
  @Type(() => Number)
  @IsInt()
  @Min(0)
  @Max(GREATEST_MINOR)
  firstYearMinor?: number;

  /** On what the first price depends, as a price list writes it: “at least 3 years; new customers”. */
  @IsOptional()
  @IsString()
  @MaxLength(200, { message: 'A condition has 200 letters at most.' })
  firstYearCondition?: string;

  /** What an extra is called. */
  @ValidateIf(({ action }: PriceForm) => action === 'extra')
  @IsString()
  @MinLength(1, { message: 'Say what the extra is.' })
  @MaxLength(60, { message: 'An extra has 60 letters at most.' })
  item?: string;

  @IsOptional()
  @IsString()
  @MaxLength(200, { message: 'What is included has 200 letters at most.' })
  included?: string;

  @IsOptional()
  @IsString()
  @MaxLength(200, { message: 'A source has 200 letters at most.' })
  source?: string;

  @IsOptional()
  @Matches(/^(\d{1,2}:\d{1,15})(,\d{1,2}:\d{1,15})*$/, {
    message: 'Write totals for terms like 2: 19.90, 3: 27.',
  })
  termTotals?: string;

  @IsOptional()
  @IsBoolean()
  feeIncluded?: boolean;

  @WrittenDay()
  from!: Day;
}

/** What is expected of an account's prices of an ending, in percent a year; left out, the list's own history says it. */
export class RiseForm {
  @Type(() => Number)
  @IsInt()
  accountId!: number;

  @IsString()
  @MaxLength(253)
  ending!: string;

  @IsOptional()
  @Min(-90, { message: 'A price falls by 90 percent a year at most.' })
  @Max(1000, { message: 'Write the rise as a percentage, like 4.' })
  percent?: number;
}
