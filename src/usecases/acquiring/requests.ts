import { Type } from 'class-transformer';
import {
  ArrayMaxSize,
  ArrayNotEmpty,
  IsArray,
  IsBoolean,
  IsInt,
  IsOptional,
  IsString,
  Max,
  MaxLength,
  Min,
  ValidateNested,
} from 'class-validator';
import { OneLine } from '../texts';

/** Ideas, and what is to be made of them. */
export class IdeaSetForm {
  /** What the set is called; its first words where nothing is said. */
  @IsOptional()
  @IsString()
  @OneLine()
  @MaxLength(120)
  label?: string;

  @IsString({ message: 'Write some words, like tern, cairn, wrack.' })
  @MaxLength(200_000, { message: 'This is too long: 200,000 characters at most.' })
  ideas!: string;

  @IsArray()
  @ArrayNotEmpty({ message: 'Choose a pattern, or write one like {a}{b}.' })
  @ArrayMaxSize(20)
  @IsString({ each: true })
  @MaxLength(60, { each: true })
  patterns!: string[];

  @IsArray()
  @ArrayMaxSize(40, { message: 'Choose 40 endings at most.' })
  @IsString({ each: true })
  @MaxLength(63, { each: true })
  endings!: string[];

  @Type(() => Number)
  @IsInt()
  @Min(1, { message: 'A name is held for 1 to 10 years.' })
  @Max(10, { message: 'A name is held for 1 to 10 years.' })
  heldYears!: number;
}

/** What is chosen for one name of a review; what is left out is what costs least. */
export class ReviewChoice {
  @IsString()
  @MaxLength(253)
  ascii!: string;

  @IsOptional()
  @Type(() => Number)
  @IsInt()
  accountId?: number;

  @IsOptional()
  @Type(() => Number)
  @IsInt()
  @Min(1)
  @Max(10)
  years?: number;

  @IsOptional()
  @IsBoolean()
  privacy?: boolean;

  @IsOptional()
  @IsBoolean()
  autoRenew?: boolean;

  @IsOptional()
  @IsString()
  @MaxLength(4000)
  nameServers?: string;
}

export class ReviewRequest {
  @IsArray()
  @ArrayMaxSize(100, { message: 'Review 100 names at a time, at most.' })
  @ValidateNested({ each: true })
  @Type(() => ReviewChoice)
  choices!: ReviewChoice[];
}
