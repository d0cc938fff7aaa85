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
import { ASSUMPTION_LIMITS, GROUPINGS, type Grouping } from '@/core/odds';
import { GREATEST_SEED } from '@/core/prospects';

/** A figure within the limits of its assumption. */
function Assumed(figure: keyof typeof ASSUMPTION_LIMITS): PropertyDecorator {
  const [least, most] = ASSUMPTION_LIMITS[figure];
  const message = { message: `${figure} is ${least} to ${most}.` };
  return (target, property) => {
    for (const rule of [IsOptional(), IsNumber({}, message), Min(least, message), Max(most, message)])
      rule(target, property as string);
  };
}

const MONEY = { message: 'Give whole minor units of the office’s currency.' };

/** Assumptions of selling and of money; what is left out is as usual. Shares are 0 to 1. */
export class AssumptionsForm {
  @IsOptional()
  @IsIn([...GROUPINGS], { message: 'Names are grouped by ending, tag, asking or view.' })
  grouping?: Grouping;

  /** The saved view whose names are one group. */
  @IsOptional()
  @IsInt()
  viewId?: number;

  /** Sales in a name-year before own sales are counted. */
  @Assumed('chance')
  chance?: number;

  /** In how many name-years that is taken to have been seen. */
  @Assumed('nameYears')
  nameYears?: number;

  @IsOptional()
  @IsBoolean()
  countOwnSales?: boolean;

  /** What share of the asking price is paid; left out where own sales or the usual say it. */
  @Assumed('medianShare')
  medianShare?: number;

  @Assumed('shareSigma')
  shareSigma?: number;

  @Assumed('commission')
  commission?: number;

  /** A name with an offer is so many times as likely to be sold. */
  @Assumed('offerFactor')
  offerFactor?: number;

  /** A name whose window is opened often is so many times as likely to be sold. */
  @Assumed('visitFactor')
  visitFactor?: number;

  /** From how many visits in 90 days on. */
  @Assumed('visitsFrom')
  visitsFrom?: number;

  @Assumed('interest')
  interest?: number;

  @Assumed('elasticity')
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

const SEED = { message: `A seed is a whole number from 0 to ${GREATEST_SEED}.` };

/** How a forecast is drawn: without assumptions by those of the office, for five years. */
class Drawn {
  @IsOptional()
  @ValidateNested()
  @Type(() => AssumptionsForm)
  assumptions?: AssumptionsForm;

  @IsOptional()
  @IsInt()
  @Min(1, { message: 'Look 1 to 10 years ahead.' })
  @Max(10, { message: 'Look 1 to 10 years ahead.' })
  years?: number;

  /** The same gives the same picture again. */
  @IsOptional()
  @IsInt(SEED)
  @Min(0, SEED)
  @Max(GREATEST_SEED, SEED)
  seed?: number;

  @IsOptional()
  @IsInt()
  @Min(100, { message: 'Play 100 to 10,000 paths.' })
  @Max(10_000, { message: 'Play 100 to 10,000 paths.' })
  paths?: number;
}

/** A forecast by one or several strategies; without any as it stands. */
export class ForecastRequest extends Drawn {
  @IsOptional()
  @IsArray()
  @ArrayMinSize(1, { message: 'Say at least one strategy.' })
  @ArrayMaxSize(6, { message: 'Compare six strategies at most.' })
  @ValidateNested({ each: true })
  @Type(() => StrategyForm)
  strategies?: StrategyForm[];
}

/** A forecast of the ledger as it stands, to be kept: what happens is held against that. */
export class KeepForecast extends Drawn {
  @IsString()
  @MinLength(1, { message: 'Give the forecast a name.' })
  @MaxLength(60, { message: 'A name has 60 letters at most.' })
  label!: string;
}
