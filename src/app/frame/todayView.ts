import {
  chargeDays,
  type LedgerDay,
  type LedgerRow,
  rowsNear,
  TODAY_DAYS,
  todayLists,
  todaySummary,
  worthIn,
} from '@/core/ledger';
import { addDays } from '@/core/time';
import type { RowView, TodayView } from './views';

/** So many names of a day's charges are told. */
const MOST_NAMED = 6;

/** What needs a decision today: at most `limit` rows of each consequence, and the line of time of the next days. */
export function todayView(today: LedgerDay, limit: number, view: (row: LedgerRow) => RowView): TodayView {
  const { projection } = today;
  const { asOf, index, names } = projection;
  const worth = worthIn(index.rules, asOf);
  const lists = todayLists(rowsNear(today, TODAY_DAYS), asOf, worth, index.rules.zone);
  const days = chargeDays(projection, addDays(asOf, TODAY_DAYS));
  return {
    summary: todaySummary(lists, days),
    lists: lists.map((list) => ({
      consequence: list.consequence,
      total: list.rows.length,
      rows: list.rows.slice(0, limit).map(view),
    })),
    charges: days.map(({ places, ...day }) => ({
      ...day,
      worthMinor: day.amounts.reduce((sum, amount) => sum + (worth(amount) ?? 0), 0),
      names: places.slice(0, MOST_NAMED).map((place) => names.unicode(place)),
      accountIds: [...new Set(places.map((place) => names.accountId(place)))],
    })),
  };
}
