import 'reflect-metadata';
import { type Computation, computeInThread } from '@/usecases/computing';
import { deps } from '@/usecases/deps';
import { withinRequest } from '@/usecases/log';

/** A thread beside the application: it computes what would hold up every other request there. */
const own = deps({ part: 'thread', connections: 4, thread: null });

export interface Task {
  readonly name: Computation;
  readonly args: readonly unknown[];
  readonly requestId: string;
}

export default function work({ name, args, requestId }: Task): Promise<unknown> {
  return withinRequest(requestId, () => computeInThread(own, name, args));
}
