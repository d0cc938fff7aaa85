import { NOT_OURS } from '@/connectors/registrar/results';
import { amount } from '@/core/money';
import { autoAsBefore, stageOnceBack } from '@/core/moving';
import { formatInstant } from '@/core/time';
import type { NamePatch } from '@/database/changes';
import { SWITCHED } from '../names/edit';
import { entryOf, type MoveStep, setWithoutCode, stays, unlessSet } from './step';

/** Puts a name back as it was: lock and auto-renew as before, its code unset. Values that are set, so it may be done again. */
export const GOING_BACK: MoveStep = {
  at: 'going back',
  async take(deps, transfer, { losing }) {
    const { before, now, ascii, fromId, chargedMinor, problem } = transfer;
    // A name that is no longer there cannot be put back.
    if (now.accountId !== fromId) return { kind: 'on', to: 'given up', problem };
    if (!losing) return null;
    const auto = autoAsBefore(before.setting);
    const lock = before.lock ?? true;
    const outcome = await setWithoutCode(losing, ascii, { lock, auto });
    // It has gone to its buyer meanwhile.
    if (outcome.kind === 'refused' && NOT_OURS.has(outcome.code)) return { kind: 'on', to: 'given up', problem };
    const names: NamePatch = {
      ...SWITCHED['auto-renew'](auto, formatInstant(deps.clock()), 'back as it was'),
      lock,
      requested_lock: null,
    };
    const went = unlessSet(outcome, fromId, () => ({
      kind: 'on',
      to: stageOnceBack(chargedMinor),
      problem,
      ledger: { names, evidence: 'the registrar’s answer' },
    }));
    return went.kind === 'stays' && went.problem === null ? stays(problem) : went;
  },
};

/** Waits until what was paid has come back. */
export const AWAITING_CREDIT: MoveStep = {
  at: 'credit awaited',
  async take(_deps, transfer) {
    const { creditedMinor, currency, problem } = transfer;
    if (creditedMinor === null) return stays(problem);
    const entry = entryOf(transfer, amount(creditedMinor, currency), null, null);
    return { kind: 'on', to: 'given up', problem, ledger: { entry: { ...entry, kind: 'refund', quotedMinor: null } } };
  },
};
