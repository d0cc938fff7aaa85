import { randomUUID } from 'node:crypto';
import type { RegistrarLink } from '@/connectors/registrar/port';
import { EPP_RESULT } from '@/connectors/registrar/results';
import { isRefusal, type Refusal, refuse } from '@/core/refusal';
import { dayIn, formatDay } from '@/core/time';
import {
  type ForeignTransfer,
  markForeignMailed,
  moveForeign,
  selectForeignTransfer,
  selectForeignTransfers,
} from '@/database/foreignTransfers';
import { selectSettings } from '@/database/settings';
import { changing } from '../changing';
import type { Deps } from '../deps';
import { linkOf } from '../links/links';
import { command } from '../people/command';
import { mailOffice } from '../reminders/mailOffice';
import { freshCode } from './step';

export type { ForeignTransfer } from '@/database/foreignTransfers';

/** Transfers that nobody here asked for: the most urgent of all. */
export function foreignTransfers(deps: Deps): Promise<ForeignTransfer[]> {
  return selectForeignTransfers(deps.database);
}

/** Mails of those that were not told of yet, at once. Sent, then noted: a crash in between tells the same thing twice. */
export async function mailForeign(deps: Deps): Promise<number> {
  const open = (await selectForeignTransfers(deps.database)).filter(({ isMailed }) => !isMailed);
  if (open.length === 0) return 0;
  const { zone } = await selectSettings(deps.database);
  const lines = open.map(
    ({ unicode, account, requestedBy, actsBy, state }) =>
      `${unicode} at ${account}: ${
        state === 'gone'
          ? 'it has left, and nobody here moved it'
          : `${requestedBy ?? 'somebody'} has asked for it${actsBy === null ? '' : `, and gets it on ${formatDay(dayIn(actsBy, zone))} if nobody rejects that`}`
      }.`,
  );
  const subject =
    open.length === 1
      ? `${open[0]?.unicode}: a transfer that nobody here asked for`
      : `${open.length} transfers that nobody here asked for`;
  const isSent = await mailOffice(deps, subject, (base) => [
    ...lines,
    `Reject it now: ${base}/today`,
    'Where the account has no link, ring its registrar.',
  ]);
  if (isSent)
    await markForeignMailed(
      deps.database,
      open.map(({ id }) => id),
      deps.clock(),
    );
  return isSent ? open.length : 0;
}

const gone = () => refuse('alarm-unknown', 'This has been settled meanwhile. Load the page again.');

/** Rejects a transfer that nobody here asked for, then locks the name and changes its code. Asked again it harms nothing. */
export const rejectForeign = command('rejectForeign', async (deps: Deps, id: number): Promise<true | Refusal> => {
  const alarm = await selectForeignTransfer(deps.database, id);
  if (!alarm) return gone();
  if (alarm.state === 'rejected') return true;
  const link = await linkOf(deps, alarm.accountId);
  if (!link)
    return refuse(
      'no-link',
      `This account has no link: reject the transfer at ${alarm.registrar} now, then say that it is done.`,
    );
  // Written before it is sent: what has no answer is carried on.
  await changing(deps, (tx) => moveForeign(tx, id, ['open', 'rejecting'], 'rejecting', null, null));
  return carryOutRejection(deps, link, alarm);
});

async function carryOutRejection(deps: Deps, link: RegistrarLink, alarm: ForeignTransfer): Promise<true | Refusal> {
  const { id, ascii, nameId } = alarm;
  const rejected = await link.transfer('reject', { name: ascii }, `NL-${randomUUID()}`);
  if (rejected.kind === 'unknown') return later(deps, id, rejected.cause);
  // Nothing is pending any more: it has been rejected before, taken back, or gone through.
  if (rejected.kind === 'refused' && rejected.code !== EPP_RESULT.nothingPending) {
    const problem = `The registrar does not reject it: ${rejected.reason}. Ring it now.`;
    await changing(deps, (tx) => moveForeign(tx, id, ['rejecting'], 'open', problem, null));
    return refuse('not-rejected', problem);
  }
  // Nobody needs the new code: it only ends the one that has got out.
  const safe = await link.change(ascii, { lock: true, authInfo: freshCode() }, `NL-${randomUUID()}`);
  if (safe.kind === 'unknown') return later(deps, id, safe.cause);
  if (safe.kind === 'refused') return later(deps, id, `it could not be locked: ${safe.reason}`);
  await changing(deps, async (tx, change) => {
    await moveForeign(tx, id, ['rejecting'], 'rejected', null, change.at);
    await change.names('transfer', `Rejected a transfer that nobody here asked for: ${ascii}`, [
      {
        nameId,
        patch: { observed: null, observed_at: null, lock: true, requested_lock: null },
        evidence: 'the registrar’s answer',
      },
    ]);
  });
  return true;
}

async function later(deps: Deps, id: number, cause: string): Promise<Refusal> {
  const problem = `The registrar cannot be reached (${cause}). It is tried again every minute; ring it if that goes on.`;
  await changing(deps, (tx) => moveForeign(tx, id, ['rejecting'], 'rejecting', problem, null));
  return refuse('link-failed', problem);
}

/** Carries on rejections whose answer did not come. */
export async function carryOnRejections(deps: Deps): Promise<void> {
  for (const alarm of await selectForeignTransfers(deps.database)) {
    if (alarm.state !== 'rejecting') continue;
    const link = await linkOf(deps, alarm.accountId);
    const done = link && (await carryOutRejection(deps, link, alarm));
    if (isRefusal(done)) deps.log.warn({ name: alarm.ascii, problem: done.message }, 'a rejection goes on later');
  }
}

/** What a person has done or found out: rejected at the registrar, or in order after all. */
export const settleForeign = command(
  'settleForeign',
  async (deps: Deps, id: number, as: 'rejected' | 'in order'): Promise<true | Refusal> => {
    const alarm = await selectForeignTransfer(deps.database, id);
    if (!alarm) return gone();
    const isGone = alarm.state === 'gone';
    await changing(deps, async (tx, change) => {
      await moveForeign(tx, id, ['open', 'rejecting', 'gone'], isGone ? 'gone' : as, null, change.at);
      if (as === 'rejected')
        await change.names('transfer', `Rejected by hand, a transfer that nobody here asked for: ${alarm.ascii}`, [
          { nameId: alarm.nameId, patch: { observed: null, observed_at: null }, evidence: 'told by the office' },
        ]);
    });
    return true;
  },
);
