import { Type } from 'class-transformer';
import { IsBoolean, IsEmail, IsIn, IsInt, IsOptional, IsString, Max, MaxLength, Min } from 'class-validator';
import { GREATEST_MINOR } from '@/core/money';
import type { Day } from '@/core/time';
import { OneLine } from '../texts';
import { CurrencyCode, WrittenDay } from '../validate';

/** Whom one asks for a name, and how far one would go. */
export class BeginApproach {
  @IsString()
  @MaxLength(300)
  name!: string;

  @IsOptional()
  @IsString()
  @OneLine()
  @MaxLength(200)
  holder?: string;

  @IsOptional()
  @IsEmail({}, { message: 'Write a mail address, or leave it empty.' })
  @MaxLength(254)
  contact?: string;

  @IsOptional()
  @Type(() => Number)
  @IsInt()
  @Min(1, { message: 'Write the most that you would pay.' })
  @Max(GREATEST_MINOR)
  limitMinor?: number;

  @CurrencyCode()
  currency!: string;

  @IsOptional()
  @IsString()
  @MaxLength(2000)
  note?: string;
}

/** Something that was said. */
export class SayApproach {
  @Type(() => Number)
  @IsInt()
  id!: number;

  /** We said it, or it was said to us. */
  @IsBoolean()
  isOurs!: boolean;

  /** It is sent now, through the office's mail server. */
  @IsOptional()
  @IsBoolean()
  byMail?: boolean;

  @IsString({ message: 'Write what was said.' })
  @MaxLength(20_000)
  text!: string;

  @IsOptional()
  @IsString()
  @OneLine()
  @MaxLength(200)
  subject?: string;

  @IsOptional()
  @Type(() => Number)
  @IsInt()
  @Min(1)
  @Max(GREATEST_MINOR)
  figureMinor?: number;

  /** The last day on which an answer is awaited. */
  @IsOptional()
  @WrittenDay()
  answerBy?: Day;
}

/** What was agreed, or how it went on. */
export class MoveApproach {
  @Type(() => Number)
  @IsInt()
  id!: number;

  @IsIn(['agreed', 'paid', 'arrived', 'ended'])
  to!: 'agreed' | 'paid' | 'arrived' | 'ended';

  @IsOptional()
  @Type(() => Number)
  @IsInt()
  @Min(1)
  @Max(GREATEST_MINOR)
  agreedMinor?: number;

  @IsOptional()
  @Type(() => Number)
  @IsInt()
  @Min(0)
  @Max(GREATEST_MINOR)
  feesMinor?: number;

  /** Who holds the money until it has arrived. */
  @IsOptional()
  @IsString()
  @OneLine()
  @MaxLength(200)
  moneyWith?: string;

  @IsOptional()
  @IsIn(['push', 'transfer'])
  arrivesBy?: 'push' | 'transfer';

  @IsOptional()
  @Type(() => Number)
  @IsInt()
  accountId?: number;

  /** More than the limit is meant. */
  @IsOptional()
  @IsBoolean()
  isOverLimit?: boolean;

  @IsOptional()
  @WrittenDay()
  paidOn?: Day;

  @IsOptional()
  @IsString()
  @OneLine()
  @MaxLength(120)
  reference?: string;

  /** The end of its term, where the account it comes into has no link. */
  @IsOptional()
  @WrittenDay()
  end?: Day;
}
