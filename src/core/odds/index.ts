export {
  ASSUMPTION_LIMITS,
  type Assumptions,
  discountOf,
  GROUPINGS,
  type Grouping,
  USUAL_ASSUMPTIONS,
} from './assumptions';
export { gammaDensity, gammaQuantile, normalCdf, normalQuantile } from './distributions';
export { HORIZON_YEARS, type Keeping, type KeepValue, keepValue } from './keepValue';
export {
  askingFor,
  expectedProceeds,
  isPlainFee,
  meanShare,
  type OfferedAt,
  type PriceShare,
  proceedsAt,
  SALES_FOR_SHARE,
  shareFromSales,
  shareSteps,
  USUAL_SHARE,
} from './priceShare';
export { afterSales, chanceOfSale, factorFor, type RateSpread, type SaleRate, spreadOf } from './saleChance';
