import type { Command } from '@/core/people';
import type { Weighty } from './secondPerson';

/** A command as it was made: what everybody calls, and the work behind its questions. */
export interface Made {
  readonly guarded: (deps: never, ...args: never[]) => Promise<unknown>;
  readonly work: (deps: never, ...args: never[]) => Promise<unknown>;
  readonly weigh: (deps: never, ...args: never[]) => Promise<Weighty | null>;
}

/** The commands that are made so far: all of them, once every use case has been loaded. */
export const madeCommands = new Map<Command, Made>();
