/** What a command is about to do, as far as a second person may have to agree to it. */
export interface Weight {
  /** Wants a second person whatever it costs: restores, transfers, registrations, sales, a limit that is withdrawn. */
  readonly isGrave: boolean;
  /** What it may spend at the most, in minor units of the home currency: 0 for nothing, `null` where that cannot be told. */
  readonly spendsMinor: number | null;
}

/** What is known when it is weighed. */
export interface Weighed {
  /** What was spent this month; what may be, alone, `null` for no limit. */
  readonly spentMinor: number;
  readonly limitMinor: number | null;
  /** The office wants a second person; so many others may be one. */
  readonly asksSecond: boolean;
  readonly others: number;
}

/**
 * Whether a command goes on, waits for a second person, or is refused for being above its limit. Where nobody else could agree, what is grave
 * goes on (an office of one would stand still), and what is above a limit is refused: the limit was set by somebody.
 */
export function weigh(
  { isGrave, spendsMinor }: Weight,
  { spentMinor, limitMinor, asksSecond, others }: Weighed,
): 'go on' | 'ask' | 'refuse' {
  const isAbove =
    limitMinor !== null && (spendsMinor === null || (spendsMinor > 0 && spentMinor + spendsMinor > limitMinor));
  if ((isGrave || isAbove) && asksSecond && others > 0) return 'ask';
  return isAbove ? 'refuse' : 'go on';
}
