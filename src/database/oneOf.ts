/** A state as SQL writes it. Throws for a word that would need quoting: only constants go in here, values of requests are parameters. */
export function word<State extends string>(state: State): string {
  if (!/^[a-z ]+$/.test(state)) throw new Error(`not a state: ${state}`);
  return `'${state}'`;
}

/** A list of states as SQL writes it, so that the lists stand once, in the core: `in ('open', 'waiting')`. */
export function oneOf(states: readonly string[]): string {
  if (states.length === 0) throw new Error('a list of no states');
  return `in (${states.map(word).join(', ')})`;
}
