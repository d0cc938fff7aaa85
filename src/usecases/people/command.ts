import { type Asker, type Command, isMember, refuseCommand } from '@/core/people';
import { isRefusal, type Refusal } from '@/core/refusal';
import { actingAs } from '@/database/acting';
import type { Deps } from '../deps';
import { auditable, note } from './audit';
import { type Made, madeCommands } from './registry';
import { holdBack, settled, type Weighty } from './secondPerson';

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

/**
 * Makes a command: a function that changes something, and that only those may call whose role allows it (`core/people/access.ts`). What a
 * command does on its way by other commands is part of it. Whoever is no member (the one person of a ledger where nobody is set up, the
 * program's own jobs) is not asked. `weightOf` says, from what it is asked with, whether a second person may have to agree; `null` where
 * nothing of that kind is asked. What a member begins stands in the audit before it begins.
 */
export function command<D extends object, Args extends unknown[], Answer extends NonNullable<unknown> | null>(
  name: Command,
  run: (deps: D, ...args: Args) => Promise<Answer>,
  weightOf?: (deps: NoInfer<D>, ...args: NoInfer<Args>) => Promise<Weighty | null>,
): (deps: D, ...args: Args) => Promise<Answer | Refusal> {
  const guarded = async (deps: D, ...args: Args): Promise<Answer | Refusal> => {
    const { who, command: within } = deps as Partial<Deps>;
    if (within !== undefined || who === undefined) return run(deps, ...args);
    const refused = refuseCommand(who, name);
    if (!isMember(who)) return refused ?? run(deps, ...args);
    const own = deps as unknown as Deps;
    if (refused) {
      await note(own, 'not allowed', { command: name });
      return refused;
    }
    const weighty = weightOf && (await weightOf(deps, ...args));
    const counted = weighty ? await holdBack(own, who, name, args, weighty) : { spendingId: null };
    if (isRefusal(counted)) return counted;
    await note(own, 'command', { command: name, arguments: auditable(args) });
    const answer = await actingAs(who.name, () => run({ ...deps, command: name }, ...args));
    return settled(own, counted, answer);
  };
  const work = (deps: D, ...args: Args) => run({ ...deps, command: name }, ...args);
  const weigh = weightOf ?? (async () => null);
  madeCommands.set(name, { guarded, work, weigh } as unknown as Made);
  return guarded;
}
