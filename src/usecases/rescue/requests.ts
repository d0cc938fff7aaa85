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
  Max,
  MaxLength,
  Min,
  MinLength,
} from 'class-validator';

const MOST_NAMES = 1000;

class SomeNames {
  @IsArray()
  @ArrayNotEmpty({ message: 'Choose at least one name.' })
  @ArrayMaxSize(MOST_NAMES, { message: 'Choose up to 1,000 names at a time.' })
  @IsInt({ each: true })
  nameIds!: number[];
}

/** What the owner decides about names in danger, against the verdict or with it. */
export class DecideRescue extends SomeNames {
  /** `as computed` goes back to the verdict. */
  @IsOptional()
  @IsIn(['keep', 'drop', 'as computed'])
  verdict?: 'keep' | 'drop' | 'as computed';

  /** A share from 0 to 1. */
  @IsOptional()
  @Type(() => Number)
  @Min(0, { message: 'A chance is 0 to 100 percent.' })
  @Max(1, { message: 'A chance is 0 to 100 percent.' })
  chance?: number;

  /** The best offer that somebody has made, as a plain amount. */
  @IsOptional()
  @IsString()
  @MaxLength(20)
  bestOffer?: string;

  @IsOptional()
  @IsString()
  @MaxLength(3)
  currency?: string;

  /** There is no offer any more. */
  @IsOptional()
  @IsBoolean()
  noOffer?: boolean;

  /** Goes back to the usual chance. */
  @IsOptional()
  @IsBoolean()
  usualChance?: boolean;
}

/** What is assumed of selling names: shares from 0 to 1. */
export class SaleOddsForm {
  @Type(() => Number)
  @Min(0, { message: 'A chance is 0 to 100 percent.' })
  @Max(1, { message: 'A chance is 0 to 100 percent.' })
  chance!: number;

  @Type(() => Number)
  @Min(0, { message: 'A commission is 0 to 100 percent.' })
  @Max(1, { message: 'A commission is 0 to 100 percent.' })
  commission!: number;
}

export class DropNames extends SomeNames {
  @IsString()
  @MinLength(1, { message: 'Choose or write a reason: you will want to know it later.' })
  @MaxLength(200, { message: 'A reason has 200 letters at most.' })
  reason!: string;

  /** A zone file to keep (RFC 1035). */
  @IsOptional()
  @IsString()
  @MaxLength(200_000, { message: 'The zone file is too long to keep here.' })
  zone?: string;

  /** What has been seen to before. */
  @IsOptional()
  @IsArray()
  @ArrayMaxSize(20)
  @IsString({ each: true })
  @MaxLength(100, { each: true })
  checked?: string[];
}

export class KeepAfterAll extends SomeNames {}

/** A fresh registration that is deleted for a refund, here or by hand. */
export class RefundName {
  @IsInt()
  nameId!: number;

  @IsOptional()
  @IsBoolean()
  doneByHand?: boolean;
}
