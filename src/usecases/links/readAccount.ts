import type { HeldName, HoldingPage } from '@/connectors/registrar/port';
import { isRefusal, type Refusal, refuse } from '@/core/refusal';
import { formatInstant } from '@/core/time';
import { selectAccount } from '@/database/accounts';
import { noteLink, noteToldEnds, takeOverHolding } from '@/database/links';
import { noteTransferred } from '@/database/names';
import { writeTable } from '@/formats/csv/writeTable';
import { changing } from '../changing';
import { compute } from '../computing';
import type { Deps } from '../deps';
import { eachPartner, type Patience } from '../partners';
import { command } from '../people/command';
import { linkOf, linkProblem, links, noLink } from './links';

/**
 * Reads everything an account holds at its registrar. Balance, means and rules are taken over at once: they are facts about
 * the account. The names go through the same preview as any list: answers the import that shows it.
 */
export const readAccount = command('readAccount', async (deps: Deps, accountId: number): Promise<string | Refusal> => {
  const holding = await readHoldingOf(deps, accountId);
  if (isRefusal(holding)) return holding;
  const account = await selectAccount(deps.database, accountId);
  const begun = await compute(deps, 'beginImport', {
    content: Buffer.from(asList(holding.names)),
    source: `${account?.label ?? 'account'}, read by link`,
    accountId,
  });
  if (isRefusal(begun)) return begun;
  const options = { ...begun.options, accountId, fullList: true, confirmed: true };
  const read = await compute(deps, 'readImport', begun.id, options);
  return isRefusal(read) ? read : begun.id;
});

/** The names as a list whose columns and dates leave nothing to ask. */
function asList(names: readonly HeldName[]): string {
  return writeTable(
    ['name', 'expires', 'registered', 'auto-renew', 'lock', 'privacy'],
    names.map((name) => [
      name.name,
      formatInstant(name.paidThrough),
      name.registeredAt === null ? '' : formatInstant(name.registeredAt),
      name.setting === 'unknown' ? '' : name.setting,
      name.lock ? 'yes' : 'no',
      name.privacy === null ? '' : name.privacy ? 'yes' : 'no',
    ]),
  );
}

async function readHoldingOf(deps: Deps, accountId: number): Promise<HoldingPage | Refusal> {
  const link = await linkOf(deps, accountId);
  if (!link) return noLink();
  const holding = await link.holding();
  const at = deps.clock();
  if (holding.kind !== 'done') {
    const problem = linkProblem(holding);
    await noteLink(deps.database, accountId, { problem });
    return refuse('link-failed', problem);
  }
  const { balance, paymentMethods, rules } = holding.value;
  await changing(deps, async (tx) => {
    await takeOverHolding(tx, accountId, at, {
      balance,
      paymentMethods,
      rules: rules && { ...rules, lateFeeMinor: rules.lateFee?.minor ?? null },
    });
    await noteToldEnds(
      tx,
      accountId,
      holding.value.names.map(({ name, paidThrough }) => ({ ascii: name, end: paidThrough })),
      at,
    );
    const moved = holding.value.names.flatMap(({ name, transferredAt }) =>
      transferredAt === null ? [] : [{ ascii: name, at: transferredAt }],
    );
    await noteTransferred(tx, moved, 'the registrar');
    await noteLink(tx, accountId, { readAt: at, problem: null });
  });
  return holding.value;
}

/** Reads balance, payment methods and rules of every linked account, names left alone. */
export async function readBalances(deps: Deps, patience: Patience = 'at once'): Promise<void> {
  const ids = (await links(deps)).map(({ accountId }) => accountId);
  const read = async (accountId: number) => {
    const holding = await readHoldingOf(deps, accountId);
    return isRefusal(holding) ? holding.message : null;
  };
  await eachPartner(deps, 'account', 'balance', ids, read, patience);
}
