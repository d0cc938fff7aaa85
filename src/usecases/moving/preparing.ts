import { randomUUID } from 'node:crypto';
import { pay } from '@/core/funding';
import { everyRow, type LedgerRow, policyOf } from '@/core/ledger';
import type { Policy } from '@/core/lifecycle';
import { amount } from '@/core/money';
import { groundsAgainst, movingFacts, standingAt } from '@/core/moving';
import { isRefusal } from '@/core/refusal';
import { dayIn, formatDay, formatInstant, type Instant } from '@/core/time';
import { transferPlace } from '@/database/secrets';
import { selectSettings } from '@/database/settings';
import {
  keepCodes,
  selectCodes,
  selectOpenTransfers,
  type TransferPatch,
  type TransferRow,
} from '@/database/transfers';
import type { Deps } from '../deps';
import { SWITCHED } from '../names/edit';
import { projectedLedger } from '../names/ledger';
import { seenZone } from '../records/records';
import { seal, unseal } from '../secrets/seal';
import { freshCode, type MoveStep, stays, unlessSet } from './step';
import { siteOf } from './zones';

interface Known {
  readonly names: ReadonlyMap<number, { readonly row: LedgerRow; readonly policy: Policy }>;
  /** In which days are told. */
  readonly zone: string;
}

/** Looks once more whether the name may be moved now, and takes down how it stands before anything is changed. */
export const CHECKING: MoveStep<Known> = {
  at: 'planned',
  async prepare(deps, transfers) {
    const projection = await projectedLedger(
      deps,
      transfers.map(({ nameId }) => nameId),
    );
    const names = everyRow(projection).map(
      (row) => [row.name.id, { row, policy: policyOf(projection, row.place) }] as const,
    );
    return { names: new Map(names), zone: (await selectSettings(deps.database)).zone };
  },
  async take(deps, transfer, _sides, { names, zone }) {
    const found = names.get(transfer.nameId);
    const { now } = transfer;
    if (!found || now.accountId !== transfer.fromId)
      return { kind: 'exit', exit: 'stopped', problem: 'The name is no longer at the account that it was to leave.' };
    const at = deps.clock();
    const [ground] = standingAt(groundsAgainst(movingFacts(found.row, found.policy), at), at).filter(
      ({ mends }) => mends !== 'owner',
    );
    if (ground) {
      const until = ground.until === null ? '' : ` until ${formatDay(dayIn(ground.until, zone))}`;
      return stays(`It waits: ${ground.kind}${until}.`);
    }
    const patch = {
      old_end: formatInstant(now.end),
      setting_before: now.setting,
      lock_before: now.lock,
      privacy_before: now.privacy,
    };
    return { kind: 'on', to: 'checked', patch };
  },
};

/** Copies the zone as it is seen, so that it can be compared afterwards. */
export const COPYING: MoveStep = {
  at: 'checked',
  async take(deps, { ascii, hasZone, zoneNote, problem }, { to }) {
    const isLooked = hasZone || zoneNote !== '';
    const patch = isLooked ? undefined : await copyOf(deps, ascii);
    // Its zone has to be at the new registrar first: a person loads it there, and says so.
    if (to?.wantsZone) return stays(problem, patch);
    return { kind: 'on', to: 'zone copied', ...(patch && { patch }) };
  },
};

async function copyOf(deps: Deps, ascii: string): Promise<TransferPatch> {
  const seen = await seenZone(deps, ascii);
  if (isRefusal(seen)) return { zone: null, site: null, zone_note: `Not copied: ${seen.message}` };
  return {
    zone: seen.text,
    site: await siteOf(deps, seen.zone),
    zone_note: `Copied from ${seen.from ?? 'the name server that is set'}. Names that nobody asked for are missing in it: take the zone file of the old account too.`,
  };
}

/** Looks whether the new account can pay for it, with all that is on its way there. */
export const FUNDING: MoveStep<Map<number, number>> = {
  at: 'zone copied',
  async prepare(deps) {
    const promised = new Map<number, number>();
    for (const { stage, toId, capMinor, chargedMinor } of await selectOpenTransfers(deps.database))
      if (toId !== null && PROMISED.has(stage) && chargedMinor === null)
        promised.set(toId, (promised.get(toId) ?? 0) + (capMinor ?? 0));
    return promised;
  },
  async take(deps, { toId, capMinor, currency }, { to }, promised) {
    // Its buyer pays for it.
    if (toId === null || to === null) return { kind: 'on', to: 'funded' };
    const before = promised.get(toId) ?? 0;
    const balance = to.balanceMinor === null || to.currency !== currency ? null : to.balanceMinor - before;
    const cost = capMinor === null ? null : amount(capMinor, currency);
    if (pay(to, balance, cost, deps.clock()).outcome === 'fail')
      return stays(`${to.label} cannot pay for it. Top up its balance, or put a card there that is good.`);
    promised.set(toId, before + (capMinor ?? 0));
    return { kind: 'on', to: 'funded' };
  },
};

/** Stages in which the sum is spoken for and not yet taken. */
const PROMISED: ReadonlySet<string> = new Set(['funded', 'auto-renew off', 'unlocked', 'code held', 'requested']);

/** Switches auto-renew off at the old account, so that no charge comes in between. */
export const SWITCHING_OFF: MoveStep = {
  at: 'funded',
  async take(deps, { ascii, fromId, saleId, now }, { losing }) {
    if (!losing) return now.setting === 'off' ? { kind: 'on', to: 'auto-renew off' } : null;
    const outcome = await losing.change(ascii, { auto: 'off' }, `NL-${randomUUID()}`);
    // A buyer is not kept waiting for what the registrar does later.
    if (outcome.kind === 'pending' && saleId !== null) return { kind: 'on', to: 'auto-renew off' };
    return unlessSet(outcome, fromId, () => ({
      kind: 'on',
      to: 'auto-renew off',
      ledger: {
        names: SWITCHED['auto-renew']('off', formatInstant(deps.clock()), 'for a transfer'),
        evidence: 'the registrar’s answer',
      },
    }));
  },
};

/** Takes the lock off (RFC 5731 section 2.3). */
export const UNLOCKING: MoveStep = {
  at: 'auto-renew off',
  async take(_deps, { ascii, fromId, now }, { losing }) {
    if (!losing) return now.lock === false ? { kind: 'on', to: 'unlocked' } : null;
    const outcome = await losing.change(ascii, { lock: false }, `NL-${randomUUID()}`);
    return unlessSet(outcome, fromId, () => ({
      kind: 'on',
      to: 'unlocked',
      ledger: { names: { lock: false, requested_lock: null }, evidence: 'the registrar’s answer' },
    }));
  },
};

/** Sets a code just before it is used (RFC 9154): sealed and kept first, so that whatever was set is known. */
export const SETTING_CODE: MoveStep<ReadonlyMap<number, string>> = {
  at: 'unlocked',
  async prepare(deps, transfers, sidesOf) {
    const { key } = deps;
    // What a person has brought is kept; a new one is made only where it can be set.
    const own = transfers.filter((one) => !one.hasCode && sidesOf(one)?.losing);
    if (key && own.length > 0)
      await keepCodes(
        deps.database,
        await Promise.all(
          own.map(async (one) => ({
            id: one.id,
            sealed: await seal(key, transferPlace(one), freshCode()),
          })),
        ),
        false,
      );
    return openCodes(deps, transfers);
  },
  async take(_deps, { id, ascii, fromId, hasCode }, { losing }, codes) {
    // What a person has brought is what the registrar gave.
    if (!losing) return hasCode ? { kind: 'on', to: 'code held' } : null;
    const code = codes.get(id);
    if (code === undefined) return stays(NO_CODE);
    const outcome = await losing.change(ascii, { authInfo: code }, `NL-${randomUUID()}`);
    return unlessSet(outcome, fromId, () => ({ kind: 'on', to: 'code held' }));
  },
};

const NO_CODE = 'The code cannot be opened: another key sealed it. Stop the transfer and begin it again.';

/** The codes of some transfers, opened: never shown, never logged. */
export async function openCodes(deps: Deps, transfers: readonly TransferRow[]): Promise<Map<number, string>> {
  const sealed = await selectCodes(
    deps.database,
    transfers.map(({ id }) => id),
  );
  const open = new Map<number, string>();
  for (const transfer of transfers) {
    const { id } = transfer;
    const text = sealed.get(id);
    const code = text && deps.key && (await unseal(deps.key, transferPlace(transfer), text));
    if (code) open.set(id, code);
  }
  return open;
}

/** The instant, as the ledger keeps it. */
export const isoOf = (at: Instant | null) => (at === null ? null : formatInstant(at));
