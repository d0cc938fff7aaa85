import { isCurrency } from '@/core/money';
import { isRefusal, type Refusal, refuse } from '@/core/refusal';
import {
  type AccountDraft,
  type AccountRow,
  countNames,
  deleteEmptyAccount,
  insertAccount,
  selectAccount,
  selectAccounts,
  updateAccount,
} from '@/database/accounts';
import type { Deps } from '../deps';
import { readRequest } from '../validate';
import { AccountForm } from './requests';

export type { AccountRow } from '@/database/accounts';

import { changing } from '../changing';
import { command } from '../people/command';

/** An account with how many names it holds. */
export interface HeldAccount extends AccountRow {
  readonly names: number;
}

export function accounts(deps: Deps): Promise<AccountRow[]> {
  return selectAccounts(deps.database);
}

export async function heldAccounts(deps: Deps): Promise<HeldAccount[]> {
  const [rows, names] = await Promise.all([selectAccounts(deps.database), countNames(deps.database)]);
  return rows.map((row) => ({ ...row, names: names.get(row.id) ?? 0 }));
}

export async function heldAccount(deps: Deps, id: number): Promise<HeldAccount | null> {
  return (await heldAccounts(deps)).find((one) => one.id === id) ?? null;
}

/** Writes an account's rules, payment methods and balance; makes a new account when `id` is `null`. Answers its number. */
export const saveAccount = command(
  'saveAccount',
  async (deps: Deps, id: number | null, input: unknown): Promise<number | Refusal> => {
    const form = await readRequest(AccountForm, input);
    if (isRefusal(form)) return form;
    const label = form.label.trim();
    if (label === '') return refuse('label-empty', 'Give the account a label.', 'label');
    if (!isCurrency(form.currency))
      return refuse('currency-unknown', `${form.currency} is not a currency code of ISO 4217.`, 'currency');
    const same = (await selectAccounts(deps.database)).find(
      (other) => other.label.toLowerCase() === label.toLowerCase(),
    );
    if (same && same.id !== id)
      return refuse('label-taken', `There is an account ${same.label} already. Choose another label.`, 'label');
    const before = id === null ? null : await selectAccount(deps.database, id);
    if (id !== null && !before)
      return refuse('account-unknown', 'That account is no longer there. Load the page again.');
    const balanceMinor = form.balanceMinor ?? null;
    const at = deps.clock();
    const draft: AccountDraft = {
      label,
      registrar: form.registrar?.trim() || label,
      currency: form.currency,
      leadDays: form.leadDays,
      lateDays: form.lateDays,
      switchHours: form.switchHours ?? null,
      lateFeeMinor: form.lateFeeMinor ?? 0,
      auctionDay: form.auctionDay ?? null,
      yearsPerCharge: form.yearsPerCharge,
      retryDays: form.retryDays ?? [],
      refunds: form.refunds ?? false,
      wantsZone: form.wantsZone ?? false,
      holder: form.holder?.trim() || null,
      holderMail: form.holderMail?.trim().toLowerCase() || null,
      balanceMinor,
      balanceAt: balanceMinor === null ? null : before?.balanceMinor === balanceMinor ? before.balanceAt : at,
      rulesKnown: true,
      taxPercent: form.taxPercent ?? 0,
      notes: form.notes ?? '',
      paymentMethods: form.paymentMethods.map((method) => ({
        kind: method.kind,
        label: method.label.trim() || method.kind,
        endsMonth: method.kind === 'card' ? (method.endsMonth ?? null) : null,
      })),
    };
    return changing(deps, async (tx) => {
      if (id === null) return insertAccount(tx, draft, at);
      await updateAccount(tx, id, draft);
      return id;
    });
  },
);

/** Removes an account that holds no name. */
export const removeAccount = command('removeAccount', async (deps: Deps, id: number): Promise<true | Refusal> => {
  return changing(deps, async (tx) => {
    if (await deleteEmptyAccount(tx, id)) return true;
    return refuse(
      'account-holds-names',
      'This account still holds names, or the history of some. Move them to another account first; one with a history stays.',
    );
  });
});
