import { randomUUID } from 'node:crypto';
import { formatInstant } from '@/core/time';
import { insertBatch, patchNames } from '@/database/changes';
import { bumpRevision } from '@/database/ledger';
import { selectAskedAtLinks } from '@/database/links';
import { transaction } from '@/database/pool';
import type { Deps } from '../deps';
import { linkOf } from './links';

/** What came of asking registrars to switch auto-renew. */
export interface SwitchResult {
  readonly confirmed: number;
  readonly problems: readonly { readonly name: string; readonly problem: string }[];
}

/**
 * Switches auto-renew at the registrars, for every name that it was asked for and whose account has a link. Setting it to a
 * value twice harms nothing, so what stays without an answer is simply sent again. A refusal takes the request back and says why.
 */
export async function carryOutSwitches(deps: Deps): Promise<SwitchResult> {
  let confirmed = 0;
  const problems: { name: string; problem: string }[] = [];
  for (const { nameId, ascii, accountId, asked } of await selectAskedAtLinks(deps.database)) {
    const link = await linkOf(deps, accountId);
    if (!link) continue;
    const outcome = await link.change(ascii, { auto: asked }, `NL-${randomUUID()}`);
    if (outcome.kind === 'unknown' || outcome.kind === 'pending') continue;
    const at = formatInstant(deps.clock());
    const done = outcome.kind === 'done';
    if (done) confirmed += 1;
    else problems.push({ name: ascii, problem: outcome.reason });
    await transaction(deps.database, async (tx) => {
      await bumpRevision(tx);
      const summary = done ? `Auto-renew switched ${asked} by link` : `Switching auto-renew ${asked} was refused`;
      const batchId = await insertBatch(tx, deps.clock(), 'auto-renew', summary);
      const answered = { asked: null, asked_at: null };
      const setting = { setting: asked, standing: 'confirmed', setting_since: at, setting_evidence: 'by link' };
      await patchNames(tx, batchId, [
        {
          nameId,
          patch: done ? { ...answered, ...setting } : answered,
          evidence: done ? 'the registrar’s answer' : outcome.reason,
        },
      ]);
    });
  }
  return { confirmed, problems };
}
