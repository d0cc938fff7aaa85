import 'reflect-metadata';
import type { Asker } from '@/core/people';
import { BeingAnswered } from '@/usecases/beingAnswered';
import { type Computation, computeInThread } from '@/usecases/computing';
import { deps } from '@/usecases/deps';
import { causeOf, withinRequest } from '@/usecases/log';
import { goOnFor } from '@/usecases/people/command';
import type { Outcome } from '@/usecases/thread';

/** A thread beside the application: it computes what would hold up every other request there. */
const own = deps({ part: 'thread', connections: 8, thread: null });

export interface Task {
  readonly name: Computation;
  readonly args: readonly unknown[];
  readonly requestId: string;
  readonly asker: Asker;
  /** How many are being answered meanwhile. */
  readonly others: Int32Array;
}

/** An error loses its code on the way between threads: it goes as a value. */
export default async function work({ name, args, requestId, asker, others: memory }: Task): Promise<Outcome> {
  try {
    const others = new BeingAnswered(memory);
    const compute = () => withinRequest({ requestId }, () => computeInThread({ ...own, ...asker, others }, name, args));
    return { done: await goOnFor(asker, compute) };
  } catch (error) {
    return { failed: causeOf(error) };
  }
}
