import { type Asker, type Command, isMember, refuseCommand } from '@/core/people';
import type { Refusal } from '@/core/refusal';
import { actingAs } from '@/database/acting';
import type { Deps } from '../deps';

/** Goes on for `asker` elsewhere: what is part of a command stands under the name of whoever has begun it. */
export function goOnFor<T>({ who, command: within }: Asker, work: () => T): T {
  return within !== undefined && isMember(who) ? actingAs(who.name, work) : work();
}

/**
 * Makes work of the program's own, which anybody may set going: it carries on what was asked for by somebody who might, and goes on just
 * the same when nobody looks.
 */
export function itself<D extends object, Args extends unknown[], Answer>(
  run: (deps: D, ...args: Args) => Promise<Answer>,
): (deps: D, ...args: Args) => Promise<Answer> {
  return (deps, ...args) => run({ ...deps, who: { kind: 'itself' } }, ...args);
}

/** Every command by its name, as it was made. */
const made = new Map<Command, (deps: never, ...args: never[]) => Promise<unknown>>();

/** The commands that are made so far: all of them, once every use case has been loaded. */
export const madeCommands: ReadonlyMap<Command, (deps: never, ...args: never[]) => Promise<unknown>> = made;

/**
 * Makes a command: a function that changes something, and that only those may call whose role allows it (`core/people/access.ts`). What a
 * command does on its way by other commands is part of it. Whoever is no member (the one person of a ledger where nobody is set up, the
 * program's own jobs) is not asked.
 */
export function command<D extends object, Args extends unknown[], Answer extends NonNullable<unknown> | null>(
  name: Command,
  run: (deps: D, ...args: Args) => Promise<Answer>,
): (deps: D, ...args: Args) => Promise<Answer | Refusal> {
  const guarded = (deps: D, ...args: Args): Promise<Answer | Refusal> => {
    const { who, command: within } = deps as Partial<Deps>;
    if (within !== undefined || who === undefined) return run(deps, ...args);
    const refused = refuseCommand(who, name);
    if (refused) return Promise.resolve(refused);
    if (!isMember(who)) return run(deps, ...args);
    return actingAs(who.name, () => run({ ...deps, command: name }, ...args));
  };
  made.set(name, guarded as unknown as (deps: never, ...args: never[]) => Promise<unknown>);
  return guarded;
}
