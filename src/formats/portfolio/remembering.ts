/** So many different cells of a column are kept: a column that repeats itself has fewer, and one that does not gains nothing. */
const MOST_KEPT = 20_000;

/**
 * A reader of cells that keeps what it has read: many names share few days, prices, tags and words, and reading those anew takes most of
 * the time that a long list needs.
 */
export function remembering<T>(read: (text: string) => T): (text: string) => T {
  const kept = new Map<string, T>();
  // Of a long list most cells say what stands above them: seeing that takes less than finding it among all.
  let above: { readonly text: string; readonly value: T } | null = null;
  return (text) => {
    if (above?.text === text) return above.value;
    const known = kept.get(text);
    const value = known !== undefined || kept.has(text) ? (known as T) : read(text);
    if (kept.size < MOST_KEPT) kept.set(text, value);
    above = { text, value };
    return value;
  };
}
