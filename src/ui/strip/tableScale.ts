import { addDays, type Instant } from '@/core/time';
import type { StripScale } from './LifecycleStrip';

/** How wide strips, number lines and stages are drawn in a table. */
export const LINE_WIDTH = 176;
/** The same where a verdict stands beside them. */
export const SHORT_LINE_WIDTH = 112;

const DAYS_BACK = 60;
const DAYS_ON = 120;

/** The scale of the strips in tables of what is near: the same down the page, and from page to page. */
export function tableScale(day: Instant, width = LINE_WIDTH): StripScale {
  return { from: addDays(day, -DAYS_BACK), to: addDays(day, DAYS_ON), width };
}
