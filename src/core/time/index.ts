export { dayIn, daysUntil, endDay, endOfDay, formatDay, monthName, untilDay } from './calendar';
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
export { earliestEnd, formatTermEnd, laterEnd, latestEnd, parseTermEnd, type TermEnd } from './termEnd';
