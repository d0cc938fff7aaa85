/** Something that may be bought: what it costs and what it is worth, in whole minor units. */
export interface Choice {
  readonly cost: number;
  readonly worth: number;
  /** Comes before everything that is not: as many of these as the budget allows are taken first. */
  readonly always: boolean;
}

interface Best {
  readonly cost: number;
  readonly always: number;
  readonly worth: number;
  /** The last choice taken, and what was taken before it. */
  readonly taken: number;
  readonly before: Best | null;
}

const better = (a: Best, b: Best) => a.always - b.always || a.worth - b.worth;

/**
 * The best set under a budget: as many of those that must always be kept as possible, then the greatest worth; at equal worth
 * the cheaper one. Exact: of all sets only those that no other beats at no more cost are carried along (Nemhauser and Ullmann
 * 1969). Answers places in `choices`, ascending. Choices that are worth nothing are left out unless they are always kept.
 */
export function bestUnderBudget(choices: readonly Choice[], budget: number): number[] {
  let frontier: Best[] = [{ cost: 0, always: 0, worth: 0, taken: -1, before: null }];
  for (const [place, choice] of choices.entries()) {
    if (!choice.always && choice.worth <= 0) continue;
    const more = frontier
      .filter((best) => best.cost + choice.cost <= budget)
      .map((best) => ({
        cost: best.cost + choice.cost,
        always: best.always + (choice.always ? 1 : 0),
        worth: best.worth + choice.worth,
        taken: place,
        before: best,
      }));
    frontier = undominated(frontier, more);
  }
  const places: number[] = [];
  for (let best = frontier.at(-1) ?? null; best !== null && best.taken >= 0; best = best.before)
    places.push(best.taken);
  return places.reverse();
}

/** Merges two frontiers, each in order of cost, and leaves out what costs no less than something at least as good. */
function undominated(one: readonly Best[], other: readonly Best[]): Best[] {
  const merged: Best[] = [];
  let [i, j] = [0, 0];
  while (i < one.length || j < other.length) {
    const a = one[i];
    const b = other[j];
    const takeA = b === undefined || (a !== undefined && (a.cost < b.cost || (a.cost === b.cost && better(a, b) >= 0)));
    const next = (takeA ? a : b) as Best;
    if (takeA) i += 1;
    else j += 1;
    const last = merged.at(-1);
    if (last === undefined || better(next, last) > 0) merged.push(next);
  }
  return merged;
}
