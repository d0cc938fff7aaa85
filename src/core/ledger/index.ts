export { type AccountFunding, type FundedMonth, fundingOf, lapseAt } from './accountFunding';
export {
  arrange,
  arranged,
  placeBehind,
  type SortedAt,
  sortedAt,
} from './arrange';
export { columnsOf, FLAGS, type LedgerColumns, type SparseColumns } from './columns';
export { type Contradiction, contradictionOf, contradictionsOn } from './contradictions';
export {
  indexRules,
  type KeepingCosts,
  keepingCosts,
  pricingOf,
  type RuleIndex,
  renewalCostsAt,
  restoreCostOf,
} from './costs';
export {
  type LedgerAccount,
  type LedgerName,
  type LedgerRules,
  type PriceRise,
  PURPOSES,
  type Purpose,
  SWITCHES,
  type Switch,
  USUAL_SWITCH_HOURS,
} from './data';
export { type FoundName, findNames } from './find';
export { LedgerDay, todayInSteps, todayOf } from './ledgerDay';
export { type LifecycleStrip, lifecycleStrip, type Stretch, type StretchKind, type StripMark } from './lifecycleStrip';
export { matchingPlaces } from './matching';
export { mergeColumns } from './mergeColumns';
export {
  type ComparedMove,
  type MoveSaving,
  type MoveWish,
  moveSaving,
  moveSavings,
  USUAL_YEARS,
  type WeighedOffer,
  weighOffer,
} from './moveSaving';
export { NameTable } from './nameTable';
export { rowsNear } from './near';
export { isCaution, type Outlook } from './outlook';
export {
  type AccountCrossing,
  accountCrossings,
  bestPaths,
  cheapFirstYear,
  type EndingPrices,
  isCheapFirst,
  MOST_YEARS,
  type NextPayment,
  type PricedAccount,
  type PricesAsked,
  pricedEndings,
  pricesOfEnding,
} from './priceTable';
export {
  everyRow,
  type LedgerRow,
  LOOK_AHEAD_YEARS,
  type NameStanding,
  type Projection,
  policyOf,
  projectedInSteps,
  projectLedger,
  rowsOn,
  yearsPerCharge,
} from './projection';
export { type DueReminder, mailReminderFor, reminderFor, USUAL_LEADS } from './reminding';
export { replayLedger } from './replay';
export { type Rise, riseOf } from './rises';
export { type Mending, mendingOf } from './stalled';
export {
  type ChargeDay,
  CONSEQUENCES,
  type Consequence,
  chargeDays,
  consequenceOf,
  decideBy,
  lossPerDay,
  TODAY_DAYS,
  type TodayList,
  type TodaySummary,
  todayLists,
  todaySummary,
  type Worth,
  worthIn,
} from './today';
export { type Totals, totalsInSteps, totalsOf } from './totals';
export { type Lacking, lacksMeans, namesLacking, type Unknowns, unknownsOf } from './unknowns';
export { countUrgent, requestedPlaces, URGENT_DAYS } from './urgent';
export { EVERY_NAME, type LedgerView, queryFromView, SORT_KEYS, type SortKey, viewFromQuery } from './view';
export { projectIf, type WhatIf } from './whatIf';
export {
  type NotCompared,
  registerCost,
  transferCodeOf,
  transferPrice,
  type YearsAsked,
  yearPricesOf,
  yearTermsOf,
} from './yearPrices';
