/**
 * How a run of orders stands. `planned`: nobody has done anything yet. `requested`: a person or the program is at it. `confirmed`: what
 * happened is in the books. `dropped`: it was not done after all.
 */
export const RUN_STATES = ['planned', 'requested', 'confirmed', 'dropped'] as const;
export type RunState = (typeof RUN_STATES)[number];

/** Runs that can still be changed, started or dropped. */
export const OPEN_RUNS: readonly RunState[] = ['planned', 'requested'];

/** True while a run can still be changed, started or dropped; a run that is not there (`null`) cannot. */
export function isOpenRun(state: RunState | null): state is RunState {
  return state !== null && OPEN_RUNS.includes(state);
}

/**
 * How the order for one name stands. `waiting`: to be sent. `sending`: may have been sent. `pending`: the registrar has taken it and will
 * finish it later. `reporting`: a restore that is paid, whose report may have been sent. `report refused`: its report has to be
 * corrected. `doubt`: a person decides.
 */
export const ITEM_STATES = [
  'planned',
  'waiting',
  'sending',
  'pending',
  'reporting',
  'report refused',
  'done',
  'refused',
  'doubt',
] as const;
export type ItemState = (typeof ITEM_STATES)[number];

/** Nothing has been sent of these, or all of it was refused: they may be priced, changed and put on their way. */
export const STARTABLE: readonly ItemState[] = ['planned', 'refused'];

/** On their way: a pass over the run takes them further. */
export const UNDER_WAY: readonly ItemState[] = ['waiting', 'sending', 'pending', 'reporting'];

/** Ordered and not charged yet, as far as is known. */
export const UNPAID: readonly ItemState[] = ['waiting', 'sending', 'pending'];

/** The registrar may have the order and has not settled it. */
export const MAY_BE_SENT: readonly ItemState[] = ['sending', 'pending'];

/** One name can be in one of these only once, over all runs: a unique index keeps it. */
export const UNSETTLED: readonly ItemState[] = [...UNDER_WAY, 'report refused', 'doubt'];

/** True for an item of which nothing has been ordered or told yet. */
export function isStartable({ state, done }: { readonly state: ItemState; readonly done: boolean | null }): boolean {
  return STARTABLE.includes(state) && done !== true;
}
