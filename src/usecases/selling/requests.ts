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
import { GREATEST_MINOR } from '@/core/money';
import {
  HANDOVERS,
  type Handover,
  LISTING_KINDS,
  LISTING_LIMITS,
  type ListingKind,
  SALE_EXITS,
  SALE_STAGES,
  type SaleStage,
} from '@/core/selling';
import { Choices, together } from '../texts';
import { CurrencyCode } from '../validate';

const MOST_NAMES = 500;

/** A price in minor units of the listing's currency; left out where none is set. */
function APrice(): PropertyDecorator {
  return together(
    IsOptional(),
    IsInt({ message: PRICE_IN_WORDS }),
    Min(1, { message: PRICE_IN_WORDS }),
    Max(GREATEST_MINOR, { message: 'That is more than a name can cost. Check the amount.' }),
  );
}

const PRICE_IN_WORDS = 'Write a price as a plain amount above nothing, like 1200.';

/** The prices of a listing. */
export class PricesForm {
  @APrice()
  minimum?: number;

  @APrice()
  start?: number;

  @APrice()
  reserve?: number;

  @APrice()
  asking?: number;

  @APrice()
  buyNow?: number;
}

function AReason(): PropertyDecorator {
  return together(IsOptional(), IsString(), MaxLength(300, { message: 'A reason has 300 letters at most.' }));
}

/** Why each price is what it is. */
export class ReasonsForm {
  @AReason()
  minimum?: string;

  @AReason()
  start?: string;

  @AReason()
  reserve?: string;

  @AReason()
  asking?: string;

  @AReason()
  buyNow?: string;
}

const AUCTION_WORDS = `An auction runs for 1 to ${LISTING_LIMITS.auctionDays.most} days.`;

/** One name as it is to be listed. */
export class ListingForm {
  @IsInt()
  nameId!: number;

  @IsIn(LISTING_KINDS)
  kind!: ListingKind;

  @CurrencyCode()
  currency!: string;

  @ValidateNested()
  @Type(() => PricesForm)
  prices!: PricesForm;

  @IsOptional()
  @ValidateNested()
  @Type(() => ReasonsForm)
  reasons?: ReasonsForm;

  @IsInt()
  @Min(LISTING_LIMITS.auctionDays.least, { message: AUCTION_WORDS })
  @Max(LISTING_LIMITS.auctionDays.most, { message: AUCTION_WORDS })
  auctionDays!: number;

  @IsBoolean()
  reserveShown!: boolean;

  @IsBoolean()
  withSite!: boolean;

  @IsArray()
  @ArrayMaxSize(LISTING_LIMITS.categories, { message: `Choose up to ${LISTING_LIMITS.categories} categories.` })
  @IsString({ each: true })
  @MaxLength(60, { each: true })
  categories!: string[];

  @IsOptional()
  @IsString()
  @MaxLength(LISTING_LIMITS.pitch, { message: `A pitch is one line of ${LISTING_LIMITS.pitch} letters at most.` })
  pitch?: string;

  @IsOptional()
  @IsString()
  @MaxLength(LISTING_LIMITS.description, { message: 'A description has 4,000 letters at most.' })
  description?: string;

  @IsOptional()
  @Choices(LISTING_LIMITS.attributes)
  attributes?: Record<string, string>;
}

/** One to five hundred names to be listed at a marketplace, or by the office itself. */
export class SaveListings {
  /** Left out: the office sells them itself. */
  @IsOptional()
  @IsInt()
  marketplaceId?: number;

  @IsArray()
  @ArrayNotEmpty({ message: 'Choose at least one name.' })
  @ArrayMaxSize(MOST_NAMES, { message: 'List up to 500 names at a time.' })
  @ValidateNested({ each: true })
  @Type(() => ListingForm)
  listings!: ListingForm[];

  /** Send them to the marketplace now; else they are kept as drafts. */
  @IsBoolean()
  send!: boolean;
}

export class SomeListings {
  @IsArray()
  @ArrayNotEmpty({ message: 'Choose at least one listing.' })
  @ArrayMaxSize(MOST_NAMES, { message: 'Choose up to 500 listings at a time.' })
  @IsInt({ each: true })
  listingIds!: number[];
}

/** An offer that came by mail or telephone. */
export class EnterOffer {
  @IsInt()
  nameId!: number;

  /** Another figure in a thread that is there already. */
  @IsOptional()
  @IsInt()
  threadId?: number;

  @IsString()
  @MinLength(1, { message: 'Write who offers it.' })
  @MaxLength(120)
  buyer!: string;

  @IsOptional()
  @IsString()
  @MaxLength(200)
  contact?: string;

  @IsString()
  @MaxLength(20)
  amount!: string;

  @CurrencyCode()
  currency!: string;

  /** The last day on which it stands, `YYYY-MM-DD`. */
  @IsOptional()
  @IsString()
  @MaxLength(10)
  until?: string;

  @IsOptional()
  @IsString()
  @MaxLength(400)
  note?: string;
}

export class AnswerOffer {
  @IsInt()
  threadId!: number;

  /** The figure that is answered: an answer to another one is refused. */
  @IsInt()
  figureId!: number;

  @IsIn(['accept', 'counter', 'decline'])
  answer!: 'accept' | 'counter' | 'decline';

  @IsOptional()
  @IsString()
  @MaxLength(20)
  amount?: string;

  @IsOptional()
  @IsString()
  @MaxLength(10)
  until?: string;
}

export class AnswerRuleForm {
  /** Off: the owner answers everything above the minimum. */
  @IsBoolean()
  isOn!: boolean;

  /** Percent of the asking price from which an offer is accepted. */
  @IsOptional()
  @IsNumber()
  @Min(1, { message: 'Write a share of 1 to 100 percent.' })
  @Max(100, { message: 'Write a share of 1 to 100 percent.' })
  acceptFrom?: number;

  @IsOptional()
  @IsNumber()
  @Min(1, { message: 'Write a share of 1 to 100 percent.' })
  @Max(100, { message: 'Write a share of 1 to 100 percent.' })
  counterWith?: number;

  @IsInt()
  @Min(1)
  @Max(60)
  counterDays!: number;
}

/** A bid that was given to the office itself. */
export class EnterBid {
  @IsInt()
  auctionId!: number;

  @IsString()
  @MinLength(1, { message: 'Write who bids.' })
  @MaxLength(120)
  bidder!: string;

  /** The most that the bidder will pay. */
  @IsOptional()
  @IsString()
  @MaxLength(20)
  max?: string;

  /** In place of a bid: the name is bought at the buy-now price. */
  @IsOptional()
  @IsBoolean()
  buyNow?: boolean;
}

export class ChangeReserve {
  @IsInt()
  auctionId!: number;

  @IsOptional()
  @IsString()
  @MaxLength(20)
  reserve?: string;

  /** In place of a lower one: no reserve any more. */
  @IsOptional()
  @IsBoolean()
  withoutReserve?: boolean;
}

export class OfferToHighest {
  @IsInt()
  auctionId!: number;

  @IsString()
  @MaxLength(20)
  amount!: string;

  @IsString()
  @MaxLength(10)
  until!: string;
}

/** A step of a sale that is taken down by hand. */
export class StepSale {
  @IsInt()
  saleId!: number;

  @IsIn([...SALE_STAGES, ...SALE_EXITS])
  to!: SaleStage;

  @IsOptional()
  @IsIn(HANDOVERS)
  handover?: Handover;

  @IsOptional()
  @IsString()
  @MaxLength(120)
  buyerAccount?: string;

  @IsOptional()
  @IsString()
  @MaxLength(400)
  note?: string;
}

export class HandOver {
  @IsInt()
  saleId!: number;

  /** It was done at the registrar by hand. */
  @IsBoolean()
  byHand!: boolean;
}
