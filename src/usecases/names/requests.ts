import { Type } from 'class-transformer';
import {
  ArrayMaxSize,
  ArrayNotEmpty,
  IsArray,
  IsBoolean,
  IsIn,
  IsInt,
  IsISO8601,
  IsOptional,
  IsString,
  Matches,
  Max,
  MaxLength,
  Min,
  MinLength,
  ValidateNested,
} from 'class-validator';
import { ENTRY_KINDS, type EntryKind } from '@/core/journal';
import { PURPOSES, type Purpose, SWITCHES, type Switch } from '@/core/ledger';
import { GREATEST_MINOR } from '@/core/money';
import type { Day } from '@/core/time';
import { OneLine } from '../texts';
import { CurrencyCode, WrittenDay } from '../validate';

/** The most names one command takes. */
export const MOST_NAMES = 50_000;

/** Money as other programs send it: `{ "amount": "11.38", "currency": "USD" }`. */
export class MoneyText {
  @Matches(/^-?\d{1,13}(\.\d{1,4})?$/, { message: 'Write an amount like 11.38.' })
  amount!: string;

  @CurrencyCode()
  currency!: string;
}

/** What is to be changed on many names at once. What is left out stays as it is. */
export class NameEdit {
  @IsOptional()
  @Type(() => Number)
  @IsInt()
  accountId?: number;

  @IsOptional()
  @IsIn(PURPOSES, { message: `Choose one of ${PURPOSES.join(', ')}.` })
  purpose?: Purpose;

  @IsOptional()
  @IsBoolean()
  neverLost?: boolean;

  @IsOptional()
  @IsBoolean()
  lock?: boolean;

  @IsOptional()
  @IsBoolean()
  privacy?: boolean;

  @IsOptional()
  @IsArray()
  @ArrayMaxSize(100)
  @IsString({ each: true })
  @OneLine(true)
  @MaxLength(60, { each: true, message: 'A tag has 60 letters at most.' })
  addTags?: string[];

  @IsOptional()
  @IsArray()
  @ArrayMaxSize(100)
  @IsString({ each: true })
  removeTags?: string[];

  @IsOptional()
  @IsString()
  @MaxLength(4000, { message: 'Notes have 4,000 letters at most.' })
  notes?: string;

  @IsOptional()
  @IsBoolean()
  clearNotes?: boolean;

  @IsOptional()
  @ValidateNested()
  @Type(() => MoneyText)
  asking?: MoneyText;

  @IsOptional()
  @IsBoolean()
  clearAsking?: boolean;

  @IsOptional()
  @IsISO8601({ strict: true }, { message: 'Write the end of the term like 2027-09-21 or 2027-09-21T10:15:00Z.' })
  expiresAt?: string;

  @IsOptional()
  @IsISO8601({ strict: true }, { message: 'Write the day of registration like 2019-11-06.' })
  registeredAt?: string;

  @IsOptional()
  @IsISO8601({ strict: true }, { message: 'Write the day of the transfer like 2026-09-03.' })
  transferredAt?: string;

  @IsOptional()
  @IsISO8601({ strict: true }, { message: 'Write the day on which the holder changed like 2026-09-03.' })
  holderChangedAt?: string;

  /** The lock after a change of holder was waived before the change. */
  @IsOptional()
  @IsBoolean()
  holderLockWaived?: boolean;

  /** Where a date was seen. */
  @IsOptional()
  @IsString()
  @MaxLength(200)
  @OneLine()
  evidence?: string;

  @IsOptional()
  @IsISO8601({ strict: true }, { message: 'Write the last day to confirm like 2026-12-09.' })
  confirmMailBy?: string;

  /** The holder has confirmed the mail address. */
  @IsOptional()
  @IsBoolean()
  mailConfirmed?: boolean;
}

export class EditNames {
  @IsArray()
  @ArrayNotEmpty({ message: 'Choose at least one name.' })
  @ArrayMaxSize(MOST_NAMES)
  @IsInt({ each: true })
  nameIds!: number[];

  @ValidateNested()
  @Type(() => NameEdit)
  edit!: NameEdit;
}

class SwitchNames {
  @IsArray()
  @ArrayNotEmpty({ message: 'Choose at least one name.' })
  @ArrayMaxSize(MOST_NAMES)
  @IsInt({ each: true })
  nameIds!: number[];

  @IsIn(SWITCHES)
  what!: Switch;
}

/** A switch is asked of the registrar first, then confirmed by what was seen there. */
export class RequestSwitch extends SwitchNames {
  @IsIn(['on', 'off'])
  to!: 'on' | 'off';
}

export class ConfirmSwitch extends SwitchNames {
  /** `stalled` is of auto-renew only. */
  @IsIn(['on', 'off', 'stalled'])
  setting!: 'on' | 'off' | 'stalled';

  @IsString()
  @MinLength(1, { message: 'Write what you saw, and where: it is kept with the setting.' })
  @MaxLength(400, { message: 'The evidence has 400 letters at most.' })
  evidence!: string;
}

export class AddEntry {
  @Type(() => Number)
  @IsInt()
  nameId!: number;

  @WrittenDay()
  onDay!: Day;

  @IsIn(ENTRY_KINDS, { message: 'Choose what the money was for.' })
  kind!: EntryKind;

  @Type(() => Number)
  @IsInt()
  @Min(0, { message: 'Write the amount without a sign.' })
  @Max(GREATEST_MINOR, { message: 'That is more than a name can cost. Check the amount.' })
  minor!: number;

  @CurrencyCode()
  currency!: string;

  @IsOptional()
  @IsString()
  @MaxLength(100)
  paymentMethod?: string;

  @IsOptional()
  @IsString()
  @MaxLength(200)
  reference?: string;

  @IsOptional()
  @IsString()
  @MaxLength(1000)
  note?: string;
}
