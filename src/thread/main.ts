import 'reflect-metadata';
import { type Computation, computeInThread } from '@/usecases/computing';
import { deps } from '@/usecases/deps';
import { causeOf, withinRequest } from '@/usecases/log';
import type { Outcome } from '@/usecases/thread';

/** A thread beside the application: it computes what would hold up every other request there. */
const own = deps({ part: 'thread', connections: 4, thread: null });

export interface Task {
  readonly name: Computation;
  readonly args: readonly unknown[];
  readonly requestId: string;
}

/** An error loses its code on the way between threads: it goes as a value. */
export default async function work({ name, args, requestId }: Task): Promise<Outcome> {
  try {
    return { done: await withinRequest(requestId, () => computeInThread(own, name, args)) };
  } catch (error) {
    return { failed: causeOf(error) };
  }
}
