import { Type } from 'class-transformer';
import {
  ArrayMaxSize,
  ArrayNotEmpty,
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
import { BUY_NOW_ENDS, type BuyNowEnd, LISTING_LIMITS, USUAL_AUCTION } from '@/core/selling';
import { OneLine } from '../texts';
import { CurrencyCode } from '../validate';

const MOST_MINOR = 1e12;

const AUCTION_WORDS = `Auctions run for 1 to ${LISTING_LIMITS.auctionDays.most} days.`;

class StepForm {
  @IsInt()
  @Min(1)
  @Max(MOST_MINOR)
  fromMinor!: number;

  @IsNumber()
  @Min(0)
  @Max(100)
  percent!: number;
}

class OptionForm {
  @IsString()
  @MinLength(1, { message: 'Write what can be chosen.' })
  @MaxLength(60)
  @OneLine()
  label!: string;

  @IsInt()
  @Min(0)
  @Max(MOST_MINOR)
  minor!: number;
}

class AttributeForm {
  @IsString()
  @MinLength(1, { message: 'Write what the marketplace asks.' })
  @MaxLength(100)
  @OneLine()
  label!: string;

  @IsArray()
  @ArrayNotEmpty({ message: 'Write what can be chosen; “yes” alone for what is ticked or not.' })
  @ArrayMaxSize(20)
  @ValidateNested({ each: true })
  @Type(() => OptionForm)
  options!: OptionForm[];
}

class CsvColumnForm {
  @IsString()
  @MinLength(1)
  @MaxLength(60)
  heading!: string;

  @IsString()
  @MaxLength(30)
  field!: string;
}

/** A marketplace with its rules. Amounts are minor units of the currency of its fees. */
export class MarketplaceForm {
  @IsOptional()
  @IsInt()
  id?: number;

  @IsString()
  @MinLength(1, { message: 'Give the marketplace a name.' })
  @MaxLength(60)
  @OneLine()
  label!: string;

  @IsArray()
  @ArrayMaxSize(30)
  @CurrencyCode({ each: true })
  currencies!: string[];

  @CurrencyCode()
  feesCurrency!: string;

  @IsNumber()
  @Min(0, { message: 'A commission is 0 to 100 percent.' })
  @Max(100, { message: 'A commission is 0 to 100 percent.' })
  percent!: number;

  @IsInt()
  @Min(0)
  @Max(MOST_MINOR)
  floorMinor!: number;

  @IsArray()
  @ArrayMaxSize(10)
  @ValidateNested({ each: true })
  @Type(() => StepForm)
  steps!: StepForm[];

  @IsInt()
  @Min(0)
  @Max(MOST_MINOR)
  saleFeeMinor!: number;

  @IsInt()
  @Min(0)
  @Max(MOST_MINOR)
  listingFeeMinor!: number;

  @IsInt()
  @Min(0)
  @Max(MOST_MINOR)
  membershipMinor!: number;

  @IsBoolean()
  wholeUnits!: boolean;

  @IsArray()
  @ArrayMaxSize(30)
  @IsInt({ each: true })
  @Min(LISTING_LIMITS.auctionDays.least, { each: true, message: AUCTION_WORDS })
  @Max(LISTING_LIMITS.auctionDays.most, { each: true, message: AUCTION_WORDS })
  auctionDays!: number[];

  @IsInt()
  @Min(0, { message: 'A late bid moves the close by 0 to 1440 minutes.' })
  @Max(1440, { message: 'A late bid moves the close by 0 to 1440 minutes.' })
  extensionMinutes: number = USUAL_AUCTION.extensionMinutes;

  @IsIn(BUY_NOW_ENDS)
  buyNowEnds: BuyNowEnd = USUAL_AUCTION.buyNowEnds;

  @IsInt()
  @Min(0)
  @Max(2000)
  reviewHours!: number;

  @IsBoolean()
  payoutSet!: boolean;

  @IsArray()
  @ArrayMaxSize(LISTING_LIMITS.attributes)
  @ValidateNested({ each: true })
  @Type(() => AttributeForm)
  attributes!: AttributeForm[];

  @IsArray()
  @ArrayMaxSize(60)
  @IsString({ each: true })
  @MaxLength(60, { each: true })
  categories!: string[];

  @IsInt()
  @Min(0)
  @Max(MOST_MINOR)
  categoryMinor!: number;

  @IsOptional()
  @IsInt()
  accountId?: number;

  @IsOptional()
  @IsArray()
  @ArrayMaxSize(30)
  @ValidateNested({ each: true })
  @Type(() => CsvColumnForm)
  csvColumns?: CsvColumnForm[];

  @IsOptional()
  @IsString()
  @MaxLength(2000)
  notes?: string;
}

export class MarketplaceLinkForm {
  @IsInt()
  marketplaceId!: number;

  @IsString()
  @MaxLength(300)
  url!: string;

  @IsString()
  @MinLength(1, { message: 'Write the key of your account there.' })
  @MaxLength(300)
  key!: string;
}
