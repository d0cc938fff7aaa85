export {
  dayIn,
  daysUntil,
  endDay,
  endOfDay,
  formatDay,
  formatMonth,
  monthName,
  monthOf,
  startOfMonth,
  untilDay,
} from './calendar';
export {
  addDays,
  addYears,
  DAY_MS,
  type Day,
  dayOf,
  FIRST_DAY,
  formatInstant,
  HOUR_MS,
  type Instant,
  instant,
  LAST_DAY,
  MINUTE_MS,
  parseDay,
  parseInstant,
  startOfDay,
} from './instant';
export { DATE_ORDERS, type DateOrder, DateOrders, type FoundOrder, looksLikeDate, readDate } from './readDate';
export { type Month, readMonth } from './readMonth';
export { earliestAt, earliestEnd, formatTermEnd, laterEnd, latestEnd, parseTermEnd, type TermEnd } from './termEnd';
