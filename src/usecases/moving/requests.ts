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
  Max,
  MaxLength,
  Min,
  MinLength,
  ValidateNested,
} from 'class-validator';
import { GREATEST_MINOR } from '@/core/money';
import type { Day } from '@/core/time';
import { MOST_NAMES } from '../names/requests';
import { OneLine } from '../texts';
import { WrittenDay } from '../validate';

export class MoveWanted {
  @Type(() => Number)
  @IsInt()
  nameId!: number;

  @Type(() => Number)
  @IsInt()
  toId!: number;

  /** Not before this instant; at once where it is left out. */
  @IsOptional()
  @IsISO8601({ strict: true }, { message: 'Write the day like 2027-01-17.' })
  notBefore?: string;
}

/** Names that are to be moved, each to its account. */
export class StartTransfers {
  @IsArray()
  @ArrayNotEmpty({ message: 'Choose at least one name.' })
  @ArrayMaxSize(MOST_NAMES)
  @ValidateNested({ each: true })
  @Type(() => MoveWanted)
  items!: MoveWanted[];
}

/** What a person has done or seen of a transfer where no link says it. */
export const TOLD = [
  'the zone is there',
  'auto-renew is off',
  'the lock is off',
  'the code',
  'requested',
  'it is pending',
  'it has arrived',
  'looked after',
  'refused',
  'rejected',
  'back as it was',
  'the money is back',
] as const;
export type Told = (typeof TOLD)[number];

export class TellTransfer {
  @Type(() => Number)
  @IsInt()
  id!: number;

  @IsIn(TOLD)
  what!: Told;

  /** The code that the old registrar has given. */
  @IsOptional()
  @IsString()
  @OneLine()
  @MinLength(3, { message: 'A code has at least three characters. Copy it whole.' })
  @MaxLength(200, { message: 'A code has 200 characters at most.' })
  code?: string;

  /** What was charged, or has come back, in minor units of the new account's currency. */
  @IsOptional()
  @Type(() => Number)
  @IsInt({ message: 'Write the amount like 11.38.' })
  @Min(0)
  @Max(GREATEST_MINOR)
  minor?: number;

  /** Another sum than its price list says was charged indeed. */
  @IsOptional()
  @IsBoolean()
  isAnother?: boolean;

  @IsOptional()
  @WrittenDay()
  end?: Day;

  @IsOptional()
  @IsString()
  @OneLine()
  @MaxLength(200)
  note?: string;
}
