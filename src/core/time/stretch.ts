import type { Instant } from './instant';

/** A half-open stretch of time: `from` belongs to it, `until` does not. */
export interface TimeStretch {
  readonly from: Instant;
  readonly until: Instant;
}

/** `within`, cut down to where none of `marks` lies but at its beginning: the stretch around `at` in which they change nothing. */
export function stretchBetween(within: TimeStretch, marks: readonly (Instant | null)[], at: Instant): TimeStretch {
  let { from, until } = within;
  for (let i = 0; i < marks.length; i += 1) {
    const mark = marks[i] as Instant | null;
    if (mark === null) continue;
    if (mark <= at) from = Math.max(from, mark) as Instant;
    else until = Math.min(until, mark) as Instant;
  }
  return { from, until };
}
