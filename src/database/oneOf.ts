/**
 * A list of states as SQL writes it, so that the lists stand once, in the core: `in ('open', 'waiting')`. Throws for a word that would
 * need quoting: only constants go in here, values of requests are parameters.
 */
export function oneOf(states: readonly string[]): string {
  const strange = states.find((state) => !/^[a-z ]+$/.test(state));
  if (strange !== undefined || states.length === 0) throw new Error(`not a list of states: ${states.join(', ')}`);
  return `in (${states.map((state) => `'${state}'`).join(', ')})`;
}
