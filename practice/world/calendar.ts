/** An instant, in milliseconds since 1970. */
export type Ms = number;

export const DAY = 86_400_000;

/** The same month, day and time `years` later; 29 February becomes 28 February where there is none. */
export function yearsLater(at: Ms, years: number): Ms {
  const date = new Date(at);
  const year = date.getUTCFullYear() + years;
  const month = date.getUTCMonth();
  const lastDay = new Date(Date.UTC(year, month + 1, 0)).getUTCDate();
  const timeOfDay = at - Date.UTC(date.getUTCFullYear(), month, date.getUTCDate());
  return Date.UTC(year, month, Math.min(date.getUTCDate(), lastDay)) + timeOfDay;
}

/** `YYYY-MM-DD` of an instant, UTC. */
export function dateOf(at: Ms): string {
  return new Date(at).toISOString().slice(0, 10);
}

/** `YYYY-MM` of an instant, UTC. */
export function monthOf(at: Ms): string {
  return new Date(at).toISOString().slice(0, 7);
}
