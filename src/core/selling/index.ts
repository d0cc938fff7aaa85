export { AGENDA_KINDS, type AgendaItem, type AgendaKind, orderAgenda } from './agenda';
export {
  type Auction,
  type AuctionOutcome,
  type Bid,
  BUY_NOW_ENDS,
  type BuyNowEnd,
  buyNow,
  closingAt,
  type Increment,
  incrementAt,
  lowerReserve,
  outcomeOf,
  placeBid,
  type Standing,
  standingAsShown,
  standingOf,
  USUAL_AUCTION,
  usualIncrements,
} from './auction';
export { type CheckedListing, checkListing, type Finding, type FindingCode, HANDOVER_DAYS, soldBy } from './checks';
export {
  type Comparison,
  compareSales,
  likeness,
  type PastSale,
  quantile,
  sharedWord,
  traitsOf,
} from './comparables';
export {
  dueAt,
  HANDOVERS,
  type Handover,
  hasFailed,
  nextStages,
  refuseStage,
  SALE_EXITS,
  SALE_STAGES,
  type SaleStage,
  type Turn,
  turnAt,
} from './handover';
export { type LadderScale, ladderOf, placeOn, priceAt, type Rung, scaleOf } from './ladder';
export { commissionOn, type Leaves, leavesOf, priceToLeave } from './leaves';
export {
  AUCTION_DAYS,
  askedPrice,
  buyPrice,
  LISTING_KINDS,
  LISTING_STATES,
  type ListingKind,
  type ListingPrices,
  type ListingStatus,
  leadingPrice,
  MOST_DESCRIPTION,
  MOST_PITCH,
  NO_PRICES,
  type Offered,
  PRICE_NAMES,
  type PriceName,
  pricesOf,
  usedPrices,
} from './listing';
export {
  type AnswerRule,
  answerByRule,
  FIGURE_STATES,
  type Figure,
  type FigureState,
  liveFigure,
  middleOf,
  type Reception,
  type RuledAnswer,
  receive,
  refuseAnswer,
  type Side,
  THREAD_STATES,
  type ThreadState,
} from './offers';
export {
  type PriceRule,
  priceByRule,
  ROUNDINGS,
  type Rounding,
  RULE_BASES,
  type RuleBase,
  roundPrice,
} from './priceRule';
export { costIn, listingCost, saleFees, sellingTerms, type ToList, type VenueTerms } from './terms';
export {
  type CommissionStep,
  NO_FEES,
  USUAL_REVIEW_HOURS,
  type VenueFees,
  type VenueRules,
} from './venue';
export { type DatedMoney, yearlyReturn } from './yearlyReturn';
