import { DAY_MS, type Day, startOfDay } from '../time';

/** Money on a day: spent below zero, received above it, in minor units of one currency. */
export interface DatedMoney {
  readonly day: Day;
  readonly minor: number;
}

const DAYS_PER_YEAR = 365;
const GREATEST_RETURN = 1e18;

/**
 * The internal rate of return a year: the rate at which what was spent and received, each discounted by its days over 365, comes
 * to nothing. 0.25 is 25 percent a year. `null` where there is none: nothing spent, nothing received, or all on one day.
 */
export function yearlyReturn(money: readonly DatedMoney[]): number | null {
  const spent = money.some(({ minor }) => minor < 0);
  const received = money.some(({ minor }) => minor > 0);
  const days = money.map(({ day }) => startOfDay(day) / DAY_MS);
  const first = Math.min(...days);
  if (!spent || !received || days.every((day) => day === first)) return null;
  const worth = (rate: number) =>
    money.reduce((sum, { minor }, i) => sum + minor * (1 + rate) ** (-((days[i] ?? first) - first) / DAYS_PER_YEAR), 0);
  let [low, high] = [-1 + 1e-12, 1];
  while (worth(high) > 0 && high < GREATEST_RETURN) high = high * 2 + 1;
  if (worth(low) * worth(high) > 0) return null;
  const rising = worth(low) < 0;
  for (let i = 0; i < 200 && high - low > 1e-12 * Math.max(1, Math.abs(high)); i += 1) {
    const middle = (low + high) / 2;
    if (worth(middle) < 0 === rising) low = middle;
    else high = middle;
  }
  return (low + high) / 2;
}
