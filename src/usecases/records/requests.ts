import { Type } from 'class-transformer';
import {
  ArrayMaxSize,
  ArrayNotEmpty,
  IsArray,
  IsIn,
  IsInt,
  IsOptional,
  IsString,
  MaxLength,
  ValidateNested,
} from 'class-validator';
import { DIFFERENCE_KINDS, type DifferenceKind } from '@/core/records';

class OneDifference {
  @IsInt()
  nameId!: number;

  @IsIn(DIFFERENCE_KINDS)
  kind!: DifferenceKind;
}

export class SomeDifferences {
  @IsArray()
  @ArrayNotEmpty({ message: 'Choose at least one difference.' })
  @ArrayMaxSize(10_000)
  @ValidateNested({ each: true })
  @Type(() => OneDifference)
  differences!: OneDifference[];
}

export class PastedRecord {
  @IsString()
  @MaxLength(253)
  name!: string;

  @IsString()
  @MaxLength(200_000, { message: 'The record is too long.' })
  text!: string;
}

export class WatchNames {
  @IsArray()
  @ArrayNotEmpty({ message: 'Choose at least one name.' })
  @ArrayMaxSize(500, { message: 'Watch up to 500 names at a time.' })
  @IsString({ each: true })
  @MaxLength(253, { each: true })
  names!: string[];

  @IsOptional()
  @IsString()
  @MaxLength(400)
  note?: string;
}
