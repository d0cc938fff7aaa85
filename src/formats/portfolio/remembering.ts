/** So many different cells of a column are kept: a column that repeats itself has fewer, and one that does not gains nothing. */
const MOST_KEPT = 20_000;

/**
 * A reader of cells that keeps what it has read: many names share few days, prices, tags and words, and reading those anew takes most of
 * the time that a long list needs.
 */
export function remembering<T>(read: (text: string) => T): (text: string) => T {
  const kept = new Map<string, T>();
  return (text) => {
    const known = kept.get(text);
    if (known !== undefined || kept.has(text)) return known as T;
    const value = read(text);
    if (kept.size < MOST_KEPT) kept.set(text, value);
    return value;
  };
}
