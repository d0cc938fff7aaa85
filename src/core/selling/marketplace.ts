/** A part of a price from which another share is kept. */
export interface CommissionStep {
  /** The part of the price at and above this, in minor units. */
  readonly fromMinor: number;
  readonly percent: number;
}

/** What a marketplace keeps of a sale. Every figure is in the currency of the listing, in minor units. */
export interface MarketplaceFees {
  /** Percent of the price, 0 to 100. */
  readonly percent: number;
  /** The least commission. */
  readonly floorMinor: number;
  /** Parts of the price with a share of their own, by rising `fromMinor`. */
  readonly steps: readonly CommissionStep[];
  /** A fee for the sale itself, whatever the price. */
  readonly saleFeeMinor: number;
  /** A fee for the listing, paid whether it sells or not. */
  readonly listingFeeMinor: number;
}

/** One of the choices that a marketplace gives for an attribute, and what it costs, in minor units of the currency of its fees. */
export interface AttributeOption {
  readonly label: string;
  readonly minor: number;
}

/** Something that a marketplace asks beside the prices: one of its options may be chosen. With `yes` alone it is ticked or not. */
export interface MarketplaceAttribute {
  readonly label: string;
  readonly options: readonly AttributeOption[];
}

/** What a sale costs where no marketplace stands between. */
export const NO_FEES: MarketplaceFees = { percent: 0, floorMinor: 0, steps: [], saleFeeMinor: 0, listingFeeMinor: 0 };

/** The rules of a marketplace that a listing has to meet. */
export interface MarketplaceRules {
  /** Currencies that it sells in; empty for any. */
  readonly currencies: readonly string[];
  readonly wholeUnits: boolean;
  /** Lengths of auction that it offers, in days; empty for none. */
  readonly auctionDays: readonly number[];
  /** Hours that its review of a listing takes at most. */
  readonly reviewHours: number;
  /** Where its proceeds are paid out to has been set there. */
  readonly payoutSet: boolean;
  /** `null` where a rate is missing. */
  readonly fees: MarketplaceFees | null;
}

/** The usual longest review. */
export const USUAL_REVIEW_HOURS = 72;
