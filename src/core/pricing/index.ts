export {
  ANY_TERM,
  conditionWords,
  type FirstPurchase,
  type FirstYearCondition,
  meetsCondition,
  readCondition,
} from './condition';
export { type Cost, type CostTerms, RESTORE_RULE_OF_THUMB, restoreCost, termCost } from './cost';
export { type CostsToKeep, DEADLINE_KINDS, type Deadline, type DeadlineKind, deadlineAt } from './deadline';
export {
  type AccountCharges,
  type RenewalCost,
  type RenewalPricing,
  type RenewalTerms,
  renewalCost,
  restoreWithYear,
} from './keeping';
export {
  breakEvenRise,
  type DatedPrice,
  type LongerTerm,
  pastRise,
  savedByLongerTerm,
  yearlyWorthToday,
} from './longerTerm';
export {
  type Crossing,
  cheapestPath,
  cheapestPaths,
  crossings,
  type Held,
  type PaidAction,
  type PaidWhen,
  type YearPath,
  type YearPayment,
  type YearPrices,
  type YearTerms,
} from './overYears';
export {
  indexPrices,
  PLAIN_PRICE,
  PRICE_ACTIONS,
  type Price,
  type PriceAction,
  type Priced,
  type PriceList,
  type PriceOrigin,
  type Promotion,
  priceInForce,
} from './price';
