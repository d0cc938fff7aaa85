/** A value of JSON with its members in order, at every depth: the same is written the same, whoever has put it together. */
export function membersInOrder(value: unknown): unknown {
  if (Array.isArray(value)) return value.map(membersInOrder);
  if (typeof value !== 'object' || value === null) return value;
  const members = Object.entries(value).sort(([a], [b]) => (a < b ? -1 : 1));
  return Object.fromEntries(members.map(([key, member]) => [key, membersInOrder(member)]));
}
