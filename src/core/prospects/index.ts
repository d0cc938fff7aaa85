export { type Course, certainCosts, heldUntil, wholeCourse } from './course';
export { type GoneOffer, NO_OFFER_FACTS, type OfferFacts, type OwnSale, VISIT_DAYS } from './data';
export { expectedProfit, type Otherwise } from './expected';
export { type Compared, compareOutcomes, FAN_LINES, type Fan, fanOf } from './fan';
export {
  type Forecast,
  type ForecastAsked,
  forecast,
  type GroupTold,
  isBlocked,
  type LackingForForecast,
  type NamedStrategy,
  type Schedules,
  schedulesOf,
} from './forecast';
export { bandOf, groupOf } from './groups';
export { type HitRate, hitRates, type Said, type SaidInAll, saidInAll } from './lookingBack';
export { HORIZON_MONTHS, type MonthScale, monthAt, monthNames, monthScale } from './months';
export { INPUTS, type Input, type Mover, moversOf } from './movers';
export { type BookAsked, type OfferBook, type OfferGroup, type Origin, offerBook, offeredAt } from './offerBook';
export {
  type DropMonth,
  dropPlan,
  type RankedName,
  type Ranking,
  rankedName,
  rankNames,
  STANDS,
  type Stand,
} from './ranking';
export { asItStands, keepAll, keepCharges, type Schedule, type StandIns } from './schedule';
export { type Outcome, type Simulation, simulate, simulated } from './simulate';
export { type Asked, courseOf, type Ground, isAlwaysKept, type Strategy } from './strategies';
export { GREATEST_SEED, gammaDraw, nextSeed, readSeed, streamOf, uniform } from './streams';
export { type NameWorth, type Valuing, valuing, type YearCosts } from './worth';
