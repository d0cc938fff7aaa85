/** So many different cells of a column are kept: a column that repeats itself has fewer, and one that does not gains nothing. */
const MOST_KEPT = 20_000;

/**
 * A reader of cells that keeps what it has read: many names share few days, prices, tags and words, and reading those anew takes most of
 * the time that a long list needs.
 */
export function remembering<T>(read: (text: string) => T): (text: string) => T {
  const kept = new Map<string, T>();
  // Of a long list most cells say what stands above them: seeing that takes less than finding it among all.
  let above: string | null = null;
  let value: T;
  return (text) => {
    if (text === above) return value;
    const known = kept.get(text);
    if (known !== undefined || kept.has(text)) value = known as T;
    else {
      value = read(text);
      if (kept.size < MOST_KEPT) kept.set(text, value);
    }
    above = text;
    return value;
  };
}
