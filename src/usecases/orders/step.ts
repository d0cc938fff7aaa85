import type { HeldName, Outcome, RegistrarLink } from '@/connectors/registrar/port';
import { EPP_RESULT } from '@/connectors/registrar/results';
import type { ItemState } from '@/core/orders';
import type { Transaction } from '@/database/pool';
import type { RunItem } from '@/database/runs';
import { type Change, changing } from '../changing';
import type { Deps } from '../deps';

/** What a look at the registrar or its answer says of an item: to be sent (again), done, or moved on with a reason. */
export type Resolution<T> =
  | { readonly kind: 'send' }
  | { readonly kind: 'done'; readonly value: T }
  | {
      readonly kind: 'moved';
      readonly state: ItemState;
      readonly problem: string;
      /** Nothing more can be done for it by itself. */
      readonly settles: boolean;
      readonly unreachable?: boolean;
    };

/** An order for one name, as far as carrying it out needs to know it. */
export interface OrderItem {
  readonly ascii: string;
  readonly state: ItemState;
}

/** An order that has moved on, with what is to be known of it. */
export type Moved<I extends OrderItem> = I & { readonly problem: string };

/** One kind of order, sent once whatever happens: how it is looked up, sent, judged and booked. */
export interface Step<T, I extends OrderItem = RunItem> {
  /** Compares what the registrar has with what was expected. */
  reconcile(item: I, held: HeldName): Resolution<T>;
  /** What it means that the registrar does not tell of the name; without it, the order is refused, or in doubt once it may have been sent. */
  notTold?(item: I, refusal: Extract<Outcome<never>, { kind: 'refused' }>): Resolution<T>;
  /** Notes that the orders may have been sent, before they are. Answers the items as they stand then. */
  mark(deps: Deps, items: readonly I[]): Promise<readonly I[]>;
  /** Writes what keeps orders from going on. */
  move(deps: Deps, moved: readonly Moved<I>[]): Promise<void>;
  send(link: RegistrarLink, item: I): Promise<Resolution<T>>;
  /** Writes what was done, in the transaction of its group, each once. */
  book(tx: Transaction, change: Change, done: readonly Fulfilled<T, I>[]): Promise<void>;
}

export interface Fulfilled<T, I = RunItem> {
  readonly item: I;
  readonly value: T;
}

/** What a step came to for a group. `left`: neither done nor settled. */
export interface Stepped<T, I = RunItem> {
  readonly done: readonly Fulfilled<T, I>[];
  readonly settled: number;
  readonly unreachable: boolean;
}

/** How often one pass sends the same order, when its answer stays away. */
const MOST_SENDS = 3;

/**
 * Takes a group of items through one step (guarded resend): looked up first, marked, sent, booked; what has no answer is looked
 * up and sent again. A crash anywhere leaves rows from which the next pass starts with a look.
 */
export async function takeStep<T, I extends OrderItem = RunItem>(
  deps: Deps,
  link: RegistrarLink,
  step: Step<T, I>,
  items: readonly I[],
): Promise<Stepped<T, I>> {
  let open = items;
  const done: Fulfilled<T, I>[] = [];
  let settled = 0;
  let unreachable = false;
  const judge = async (verdicts: readonly Resolution<T>[]) => {
    const now = open.flatMap((item, i): Fulfilled<T, I>[] => {
      const verdict = verdicts[i];
      return verdict?.kind === 'done' ? [{ item, value: verdict.value }] : [];
    });
    const moves = open.flatMap((item, i) => {
      const verdict = verdicts[i];
      return verdict?.kind === 'moved' ? [{ ...item, state: verdict.state, problem: verdict.problem }] : [];
    });
    if (moves.length > 0) await step.move(deps, moves);
    if (now.length > 0) await changing(deps, (tx, change) => step.book(tx, change, now));
    done.push(...now);
    settled += verdicts.filter((one) => one.kind === 'moved' && one.settles).length;
    unreachable ||= verdicts.some((one) => one.kind === 'moved' && one.unreachable);
    open = open.filter((_, i) => verdicts[i]?.kind === 'send');
  };
  for (let sends = 0; sends < MOST_SENDS && open.length > 0; sends += 1) {
    await judge(await Promise.all(open.map(async (item) => seen(step, item, await link.info(item.ascii)))));
    if (open.length === 0) break;
    open = await step.mark(deps, open);
    await judge(await Promise.all(open.map((item) => step.send(link, item))));
  }
  if (open.length > 0) {
    const problem = 'The registrar did not answer. It is looked up there and tried again.';
    await step.move(
      deps,
      open.map((item) => ({ ...item, problem })),
    );
  }
  return { done, settled, unreachable };
}

/**
 * Waits for what the registrar has taken and not finished: its answer said so (RFC 5730 section 3, 1001), or the name carries the
 * status (RFC 5731 section 2.3). Nothing is sent again; the registrar's message settles it. `null` when nothing is being finished.
 */
export function isBeingFinished<T>(item: OrderItem, { statuses }: HeldName, status: string): Resolution<T> | null {
  if (item.state !== 'pending' && !statuses.includes(status) && !statuses.includes('pendingTransfer')) return null;
  return {
    kind: 'moved',
    state: item.state === 'waiting' ? 'waiting' : 'pending',
    problem: TAKEN_FOR_LATER,
    settles: false,
  };
}

const TAKEN_FOR_LATER = 'The registrar has taken it and will finish it later. Its message says when it has.';

function seen<T, I extends OrderItem>(step: Step<T, I>, item: I, outcome: Outcome<HeldName>): Resolution<T> {
  if (outcome.kind === 'done') return step.reconcile(item, outcome.value);
  if (outcome.kind === 'refused') {
    if (step.notTold) return step.notTold(item, outcome);
    const state = item.state === 'waiting' ? 'refused' : 'doubt';
    return { kind: 'moved', state, problem: `The registrar says: ${outcome.reason}.`, settles: true };
  }
  const cause = outcome.kind === 'unknown' ? outcome.cause : 'not finished yet';
  const problem = `The registrar cannot be reached (${cause}). It is tried again.`;
  return { kind: 'moved', state: item.state, problem, settles: false, unreachable: true };
}

/** Turns an order's outcome into a verdict. */
export function answered<A, T>(outcome: Outcome<A>, read: (value: A, svTRID: string | null) => T): Resolution<T> {
  switch (outcome.kind) {
    case 'done':
      return { kind: 'done', value: read(outcome.value, outcome.svTRID) };
    case 'pending':
      return { kind: 'moved', state: 'pending', problem: TAKEN_FOR_LATER, settles: false };
    case 'refused':
      return { kind: 'moved', state: 'refused', problem: refusalWords(outcome.code, outcome.reason), settles: true };
    case 'unknown':
      return { kind: 'send' };
  }
}

/** Why a registrar refused, with what to do about it. */
function refusalWords(code: number, reason: string): string {
  if (code === EPP_RESULT.billingFailure)
    return `Not paid: ${reason}. Top up the balance or replace the card, then try again.`;
  if (code === EPP_RESULT.valueRange) return `It costs more now: ${reason}. Ask for the prices again.`;
  return `Refused: ${reason}.`;
}
