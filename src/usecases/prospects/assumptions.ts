import { type Assumptions, USUAL_ASSUMPTIONS } from '@/core/odds';
import { isRefusal, type Refusal, refuse } from '@/core/refusal';
import { isOneLine } from '@/core/text/plainText';
import { deleteAssumptionSet, selectAssumptionSets, upsertAssumptionSet } from '@/database/forecasts';
import { selectSettings, upsertSettings } from '@/database/settings';
import { changing } from '../changing';
import type { Deps } from '../deps';
import { command } from '../people/command';
import { readRequest, saidIn } from '../validate';
import { type AssumptionsForm, SaveAssumptions, UseAssumptions } from './requests';

/** Assumptions under a name, completed by the usual where they were kept before one was thought of. */
export interface NamedAssumptions {
  readonly id: number;
  readonly label: string;
  readonly assumptions: Assumptions;
}

/** What the office assumes, and every set that was given a name. */
export interface AllAssumptions {
  readonly inUse: Assumptions;
  readonly sets: readonly NamedAssumptions[];
}

export async function allAssumptions(deps: Deps): Promise<AllAssumptions> {
  const [{ saleOdds }, sets] = await Promise.all([selectSettings(deps.database), selectAssumptionSets(deps.database)]);
  return {
    inUse: saleOdds,
    sets: sets.map(({ id, label, assumptions }) => ({
      id,
      label,
      assumptions: { ...USUAL_ASSUMPTIONS, ...assumptions },
    })),
  };
}

/** Whole assumptions: what was said, over what is usual. What nobody says is left to what is known. */
export const completed = (said: AssumptionsForm): Assumptions => ({ ...USUAL_ASSUMPTIONS, ...saidIn(said) });

/** Keeps assumptions under a name; the same name again replaces them. */
export const saveAssumptions = command(
  'saveAssumptions',
  async (deps: Deps, input: unknown): Promise<AllAssumptions | Refusal> => {
    const request = await readRequest(SaveAssumptions, input);
    if (isRefusal(request)) return request;
    const label = request.label.trim();
    if (label === '' || !isOneLine(label)) return refuse('assumptions-label', 'Write the name in one line.', 'label');
    await changing(deps, (tx, { at }) => upsertAssumptionSet(tx, label, completed(request.assumptions), at));
    return allAssumptions(deps);
  },
);

/** Takes assumptions into use: by them Rescue judges, and Prospects begins with them. */
export const takeAssumptions = command(
  'takeAssumptions',
  async (deps: Deps, input: unknown): Promise<AllAssumptions | Refusal> => {
    const request = await readRequest(UseAssumptions, input);
    if (isRefusal(request)) return request;
    await changing(deps, (tx) => upsertSettings(tx, { saleOdds: completed(request.assumptions) }));
    return allAssumptions(deps);
  },
);

export const dropAssumptions = command(
  'dropAssumptions',
  async (deps: Deps, id: number): Promise<AllAssumptions | Refusal> => {
    const there = await changing(deps, (tx) => deleteAssumptionSet(tx, id));
    return there ? allAssumptions(deps) : refuse('assumptions-unknown', 'These assumptions are no longer there.');
  },
);
