/** Something that may be bought: what it costs and what it is worth, in whole minor units. */
export interface Choice {
  readonly cost: number;
  readonly worth: number;
  /** Comes before everything that is not: as many of these as the budget allows are taken first. */
  readonly always: boolean;
}

/** Choices that cost the same and are worth the same: it does not matter which of them are taken, only how many. */
interface Kind {
  readonly cost: number;
  readonly value: number;
  readonly places: readonly number[];
}

interface Best {
  readonly cost: number;
  readonly value: number;
  /** How many of the last kind were taken, and what was taken before it. */
  readonly kind: Kind | null;
  readonly count: number;
  readonly before: Best | null;
}

/**
 * The best set under a budget: as many of those that must always be kept as possible, then the greatest worth; at equal worth
 * the cheaper one. Exact: of all sets only those are carried along that no other beats at no more cost (Nemhauser and Ullmann 1969)
 * and that could still become the best if what is left could be bought in parts (Dantzig 1957). Answers places in `choices`, ascending.
 * Choices that are worth nothing are left out unless they are always kept.
 */
export function bestUnderBudget(choices: readonly Choice[], budget: number): number[] {
  const kinds = kindsOf(choices);
  const fill = fillOf(kinds, budget);
  let frontier: Best[] = [{ cost: 0, value: 0, kind: null, count: 0, before: null }];
  let least = fill(0, 0).whole;
  for (const [i, kind] of kinds.entries()) {
    const next: Best[] = [];
    for (const before of frontier) {
      const room = kind.cost === 0 ? kind.places.length : Math.floor((budget - before.cost) / kind.cost);
      for (let count = Math.min(room, kind.places.length); count >= 0; count -= 1) {
        const [cost, value] = [before.cost + count * kind.cost, before.value + count * kind.value];
        const rest = fill(i + 1, cost);
        least = Math.max(least, value + rest.whole);
        // Fewer of what is worth most for its cost leads no further.
        if (value + rest.inParts < least - HALF) break;
        next.push({ cost, value, kind, count, before });
      }
    }
    frontier = undominated(next);
  }
  const places: number[] = [];
  for (let best = frontier.at(-1) ?? null; best?.kind; best = best.before)
    places.push(...best.kind.places.slice(0, best.count));
  return places.sort((a, b) => a - b);
}

/** Sums of whole units differ by at least one: less than half is how a computer divides. */
const HALF = 0.5;

/** The choices that may be taken by what they cost and are worth, what is worth most for its cost first. */
function kindsOf(choices: readonly Choice[]): Kind[] {
  // One that is always kept is worth more than all that is not.
  const all = choices.reduce((sum, { worth }) => sum + Math.abs(worth), 1);
  const kinds = new Map<string, { cost: number; value: number; places: number[] }>();
  for (const [place, { cost, worth, always }] of choices.entries()) {
    const value = worth + (always ? all : 0);
    if (value <= 0) continue;
    const key = `${cost} ${value}`;
    const known = kinds.get(key);
    if (known) known.places.push(place);
    else kinds.set(key, { cost, value, places: [place] });
  }
  return [...kinds.values()].sort((a, b) => b.value * a.cost - a.value * b.cost || a.cost - b.cost);
}

/** What the money that is left buys of the kinds from one on, greedily: in whole pieces, and at the most if parts could be bought. */
function fillOf(kinds: readonly Kind[], budget: number) {
  const costs = [0];
  const values = [0];
  for (const { cost, value, places } of kinds) {
    costs.push((costs.at(-1) ?? 0) + cost * places.length);
    values.push((values.at(-1) ?? 0) + value * places.length);
  }
  return (from: number, spent: number): { whole: number; inParts: number } => {
    const reach = budget - spent + (costs[from] as number);
    // The first kind that can no longer be bought in full.
    let [low, high] = [from, kinds.length];
    while (low < high) {
      const middle = (low + high) >> 1;
      if ((costs[middle + 1] as number) <= reach) low = middle + 1;
      else high = middle;
    }
    const full = (values[low] as number) - (values[from] as number);
    const next = kinds[low];
    if (!next) return { whole: full, inParts: full };
    const left = (reach - (costs[low] as number)) / next.cost;
    return { whole: full + Math.floor(left) * next.value, inParts: full + left * next.value };
  };
}

/** In order of cost, without what costs no less than something at least as good. */
function undominated(states: Best[]): Best[] {
  const kept: Best[] = [];
  for (const state of states.sort((a, b) => a.cost - b.cost || b.value - a.value))
    if (state.value > (kept.at(-1)?.value ?? Number.NEGATIVE_INFINITY)) kept.push(state);
  return kept;
}
