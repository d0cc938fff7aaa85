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
  Matches,
  Max,
  MaxLength,
  Min,
  MinLength,
  ValidateNested,
} from 'class-validator';
import {
  HANDOVERS,
  type Handover,
  LISTING_KINDS,
  type ListingKind,
  SALE_EXITS,
  SALE_STAGES,
  type SaleStage,
} from '@/core/selling';

const MOST_NAMES = 500;
const CODE = /^[A-Z]{3}$/;
const CODE_WORDS = 'Write the currency as a code like USD.';

/** The prices of a listing as plain amounts, like `1200`; left out where none is set. */
export class PricesForm {
  @IsOptional()
  @IsString()
  @MaxLength(20)
  minimum?: string;

  @IsOptional()
  @IsString()
  @MaxLength(20)
  start?: string;

  @IsOptional()
  @IsString()
  @MaxLength(20)
  reserve?: string;

  @IsOptional()
  @IsString()
  @MaxLength(20)
  asking?: string;

  @IsOptional()
  @IsString()
  @MaxLength(20)
  buyNow?: string;
}

/** Why each price is what it is. */
export class ReasonsForm {
  @IsOptional()
  @IsString()
  @MaxLength(300)
  minimum?: string;

  @IsOptional()
  @IsString()
  @MaxLength(300)
  start?: string;

  @IsOptional()
  @IsString()
  @MaxLength(300)
  reserve?: string;

  @IsOptional()
  @IsString()
  @MaxLength(300)
  asking?: string;

  @IsOptional()
  @IsString()
  @MaxLength(300)
  buyNow?: string;
}

/** One name as it is to be listed. */
export class ListingForm {
  @IsInt()
  nameId!: number;

  @IsIn(LISTING_KINDS)
  kind!: ListingKind;

  @Matches(CODE, { message: CODE_WORDS })
  currency!: string;

  @ValidateNested()
  @Type(() => PricesForm)
  prices!: PricesForm;

  @IsOptional()
  @ValidateNested()
  @Type(() => ReasonsForm)
  reasons?: ReasonsForm;

  @IsInt()
  @Min(1, { message: 'An auction runs for 1 to 30 days.' })
  @Max(30, { message: 'An auction runs for 1 to 30 days.' })
  auctionDays!: number;

  @IsBoolean()
  reserveShown!: boolean;

  @IsBoolean()
  withSite!: boolean;

  @IsArray()
  @ArrayMaxSize(10, { message: 'Choose up to 10 categories.' })
  @IsString({ each: true })
  @MaxLength(60, { each: true })
  categories!: string[];

  @IsOptional()
  @IsString()
  @MaxLength(120, { message: 'A pitch is one line of 120 letters at most.' })
  pitch?: string;

  @IsOptional()
  @IsString()
  @MaxLength(4000, { message: 'A description has 4,000 letters at most.' })
  description?: string;

  @IsBoolean()
  adult!: boolean;

  @IsBoolean()
  network!: boolean;

  @IsOptional()
  @IsString()
  @MaxLength(60)
  placement?: string;
}

/** One to five hundred names to be listed at a venue, or by the office itself. */
export class SaveListings {
  /** Left out: the office sells them itself. */
  @IsOptional()
  @IsInt()
  venueId?: number;

  @IsArray()
  @ArrayNotEmpty({ message: 'Choose at least one name.' })
  @ArrayMaxSize(MOST_NAMES, { message: 'List up to 500 names at a time.' })
  @ValidateNested({ each: true })
  @Type(() => ListingForm)
  listings!: ListingForm[];

  /** Send them to the venue now; else they are kept as drafts. */
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

/** A proof that the owner asks to be looked for, or the code that was mailed. */
export class ProveListing {
  @IsInt()
  listingId!: number;

  @IsIn(['txt', 'mail', 'by hand'])
  by!: 'txt' | 'mail' | 'by hand';

  @IsOptional()
  @IsString()
  @MaxLength(100)
  code?: string;
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

  @Matches(CODE, { message: CODE_WORDS })
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

  /** The most that the bidder will pay; left out to buy at the buy-now price. */
  @IsOptional()
  @IsString()
  @MaxLength(20)
  max?: string;
}

export class ChangeReserve {
  @IsInt()
  auctionId!: number;

  /** Left out: no reserve any more. */
  @IsOptional()
  @IsString()
  @MaxLength(20)
  reserve?: string;
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
