export type Searched = Promise<Readonly<Record<string, string | string[] | undefined>>>;

/** What stands behind the question mark, as a query: of what is said twice, the first. */
export function queryOf(searched: Awaited<Searched>): URLSearchParams {
  const query = new URLSearchParams();
  for (const [name, value] of Object.entries(searched)) {
    const first = Array.isArray(value) ? value[0] : value;
    if (first !== undefined) query.set(name, first);
  }
  return query;
}
