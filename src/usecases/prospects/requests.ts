import { Type } from 'class-transformer';
import {
  ArrayMaxSize,
  ArrayMinSize,
  IsArray,
  IsBoolean,
  IsIn,
  IsInt,
  IsNumber,
  IsOptional,
  IsString,
  Max,
  MaxLength,
  Min,
  MinLength,
  ValidateNested,
} from 'class-validator';
import { GREATEST_MINOR } from '@/core/money';
import { GROUPINGS, type Grouping } from '@/core/odds';

const A_SHARE = { message: 'A share is 0 to 1: 0.02 is 2 percent.' };
const MONEY = { message: 'Give whole minor units of the office’s currency.' };

/** Assumptions of selling and of money; what is left out stays as the office has said it. Shares are 0 to 1. */
export class AssumptionsForm {
  @IsOptional()
  @IsIn([...GROUPINGS], { message: 'Names are grouped by ending, tag, asking or view.' })
  grouping?: Grouping;

  /** The saved view whose names are one group. */
  @IsOptional()
  @IsInt()
  viewId?: number;

  /** Sales in a name-year before own sales are counted. */
  @IsOptional()
  @IsNumber({}, A_SHARE)
  @Min(0, A_SHARE)
  @Max(1, A_SHARE)
  chance?: number;

  /** In how many name-years that is taken to have been seen. */
  @IsOptional()
  @IsNumber()
  @Min(1, { message: 'Take at least one name-year.' })
  @Max(1_000_000, { message: 'Take a million name-years at most.' })
  nameYears?: number;

  @IsOptional()
  @IsBoolean()
  countOwnSales?: boolean;

  /** What share of the asking price is paid; left out where own sales or the usual say it. */
  @IsOptional()
  @IsNumber({}, { message: 'The share of the price is above 0, and 5 at most.' })
  @Min(0.01, { message: 'The share of the price is above 0, and 5 at most.' })
  @Max(5, { message: 'The share of the price is above 0, and 5 at most.' })
  medianShare?: number;

  @IsOptional()
  @IsNumber()
  @Min(0, { message: 'The spread of prices is 0 to 3.' })
  @Max(3, { message: 'The spread of prices is 0 to 3.' })
  shareSigma?: number;

  @IsOptional()
  @IsNumber({}, A_SHARE)
  @Min(0, A_SHARE)
  @Max(1, A_SHARE)
  commission?: number;

  /** A name with an offer is so many times as likely to be sold. */
  @IsOptional()
  @IsNumber()
  @Min(0, { message: 'A factor is 0 to 100.' })
  @Max(100, { message: 'A factor is 0 to 100.' })
  offerFactor?: number;

  @IsOptional()
  @IsNumber({}, A_SHARE)
  @Min(0, A_SHARE)
  @Max(1, A_SHARE)
  interest?: number;

  @IsOptional()
  @IsNumber()
  @Min(0, { message: 'How much the chance answers to the price is 0 to 10.' })
  @Max(10, { message: 'How much the chance answers to the price is 0 to 10.' })
  elasticity?: number;

  @IsOptional()
  @IsInt(MONEY)
  @Min(-GREATEST_MINOR, MONEY)
  @Max(GREATEST_MINOR, MONEY)
  cashMinor?: number;

  @IsOptional()
  @IsInt(MONEY)
  @Min(-GREATEST_MINOR, MONEY)
  @Max(GREATEST_MINOR, MONEY)
  floorMinor?: number;

  /** What stands in for a price, and for a balance, that nobody knows. */
  @IsOptional()
  @IsInt(MONEY)
  @Min(0, MONEY)
  @Max(GREATEST_MINOR, MONEY)
  unknownPriceMinor?: number;

  @IsOptional()
  @IsInt(MONEY)
  @Min(0, MONEY)
  @Max(GREATEST_MINOR, MONEY)
  unknownBalanceMinor?: number;
}

export class SaveAssumptions {
  @IsString()
  @MinLength(1, { message: 'Give the assumptions a name.' })
  @MaxLength(60, { message: 'A name has 60 letters at most.' })
  label!: string;

  @ValidateNested()
  @Type(() => AssumptionsForm)
  assumptions!: AssumptionsForm;
}

export class UseAssumptions {
  @ValidateNested()
  @Type(() => AssumptionsForm)
  assumptions!: AssumptionsForm;
}

export const STRATEGY_KINDS = [
  'as it stands',
  'keep all',
  'drop what is not worth it',
  'budget',
  'lower prices',
  'thought',
] as const;

/** A price that is thought of for a name, minor units of the office's currency. */
export class AskedForm {
  @IsInt()
  nameId!: number;

  @IsInt(MONEY)
  @Min(1, MONEY)
  @Max(GREATEST_MINOR, MONEY)
  minor!: number;
}

/** A way of going on. */
export class StrategyForm {
  @IsIn([...STRATEGY_KINDS], { message: `A strategy is one of: ${STRATEGY_KINDS.join(', ')}.` })
  kind!: (typeof STRATEGY_KINDS)[number];

  /** Of a yearly budget, minor units of the office's currency. */
  @IsOptional()
  @IsInt(MONEY)
  @Min(0, MONEY)
  @Max(GREATEST_MINOR, MONEY)
  yearlyMinor?: number;

  /** By what share all asking prices fall. */
  @IsOptional()
  @IsNumber({}, { message: 'Prices fall by a share from 0 to 0.99.' })
  @Min(0, { message: 'Prices fall by a share from 0 to 0.99.' })
  @Max(0.99, { message: 'Prices fall by a share from 0 to 0.99.' })
  share?: number;

  /** Names that are thought of being dropped. */
  @IsOptional()
  @IsArray()
  @ArrayMaxSize(10_000)
  @IsInt({ each: true })
  nameIds?: number[];

  /** Names that are thought of being offered at another price. */
  @IsOptional()
  @IsArray()
  @ArrayMaxSize(10_000)
  @ValidateNested({ each: true })
  @Type(() => AskedForm)
  asked?: AskedForm[];
}

/** A forecast: what is left out is as the office has said it, as it stands, for five years. */
export class ForecastRequest {
  @IsOptional()
  @ValidateNested()
  @Type(() => AssumptionsForm)
  assumptions?: AssumptionsForm;

  @IsOptional()
  @IsArray()
  @ArrayMinSize(1, { message: 'Say at least one strategy.' })
  @ArrayMaxSize(6, { message: 'Compare six strategies at most.' })
  @ValidateNested({ each: true })
  @Type(() => StrategyForm)
  strategies?: StrategyForm[];

  @IsOptional()
  @IsInt()
  @Min(1, { message: 'Look 1 to 10 years ahead.' })
  @Max(10, { message: 'Look 1 to 10 years ahead.' })
  years?: number;

  /** The same gives the same picture again. */
  @IsOptional()
  @IsInt({ message: 'A seed is a whole number from 0 to 2147483647.' })
  @Min(0, { message: 'A seed is a whole number from 0 to 2147483647.' })
  @Max(2_147_483_647, { message: 'A seed is a whole number from 0 to 2147483647.' })
  seed?: number;

  @IsOptional()
  @IsInt()
  @Min(100, { message: 'Play 100 to 10,000 paths.' })
  @Max(10_000, { message: 'Play 100 to 10,000 paths.' })
  paths?: number;
}

export class KeepForecast extends ForecastRequest {
  @IsString()
  @MinLength(1, { message: 'Give the forecast a name.' })
  @MaxLength(60, { message: 'A name has 60 letters at most.' })
  label!: string;
}
