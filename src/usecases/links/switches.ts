import { randomUUID } from 'node:crypto';
import type { NameSettings } from '@/connectors/registrar/port';
import { SWITCHES } from '@/core/ledger';
import { formatInstant } from '@/core/time';
import type { NamePatch } from '@/database/changes';
import { notePendingSwitch, type RequestedAtLink, selectRequestedAtLinks } from '@/database/links';
import { changing } from '../changing';
import type { Deps } from '../deps';
import { NOT_REQUESTED, SWITCHED } from '../names/edit';
import { eachPartner, type Patience } from '../partners';
import { linkOf, linkProblem } from './links';

/** What came of asking registrars to switch settings. */
export interface SwitchResult {
  readonly confirmed: number;
  readonly problems: readonly { readonly name: string; readonly problem: string }[];
}

/**
 * Switches auto-renew, lock and privacy at the registrars, for every name that it was asked for and whose account has a link.
 * Setting a value twice harms nothing, so what stays without an answer is simply sent again. A refusal takes the request
 * back and says why.
 */
export async function carryOutSwitches(deps: Deps, patience: Patience = 'at once'): Promise<SwitchResult> {
  let confirmed = 0;
  const problems: { name: string; problem: string }[] = [];
  const requested = await selectRequestedAtLinks(deps.database, deps.clock());
  const atAccount = async (accountId: number) => {
    const link = await linkOf(deps, accountId);
    if (!link) return null;
    for (const one of requested.filter((row) => row.accountId === accountId)) {
      const outcome = await link.change(one.ascii, settingsOf(one), `NL-${randomUUID()}`);
      if (outcome.kind === 'pending') await notePendingSwitch(deps.database, one.nameId, deps.clock());
      // Who does not answer for one name is not asked for the next.
      if (outcome.kind === 'unknown') return linkProblem(outcome);
      if (outcome.kind === 'pending') continue;
      if (outcome.kind === 'done') confirmed += 1;
      else problems.push({ name: one.ascii, problem: outcome.reason });
      await bookSwitch(deps, one, outcome.kind === 'done' ? null : outcome.reason);
    }
    return null;
  };
  await eachPartner(
    deps,
    'account',
    'switches',
    [...new Set(requested.map(({ accountId }) => accountId))],
    atAccount,
    patience,
  );
  return { confirmed, problems };
}

function settingsOf({ auto, lock, privacy }: RequestedAtLink): NameSettings {
  return {
    ...(auto === null ? {} : { auto }),
    ...(lock === null ? {} : { lock }),
    ...(privacy === null ? {} : { privacy }),
  };
}

/** Takes down what the registrar answered for one name: everything that was asked is confirmed, or none of it. */
async function bookSwitch(deps: Deps, requested: RequestedAtLink, refusal: string | null): Promise<void> {
  const at = formatInstant(deps.clock());
  const wanted = SWITCHES.flatMap((what) => {
    const value = what === 'auto-renew' ? requested.auto : requested[what];
    return value === null ? [] : [{ what, to: value === 'on' || value === true ? ('on' as const) : ('off' as const) }];
  });
  const patch = Object.assign(
    {},
    ...wanted.map(({ what, to }) => (refusal === null ? SWITCHED[what](to, at, 'by link') : NOT_REQUESTED[what])),
  ) as NamePatch;
  const words = wanted.map(({ what, to }) => `${what} ${to}`).join(', ');
  const summary = refusal === null ? `Switched by link: ${words}` : `Switching was refused: ${words}`;
  const evidence = refusal ?? 'the registrar’s answer';
  await changing(deps, (_tx, { names }) => names('switch', summary, [{ nameId: requested.nameId, patch, evidence }]));
}
