import { randomUUID } from 'node:crypto';
import { Type } from 'class-transformer';
import { IsInt, IsOptional, IsString, Matches, Max, MaxLength, Min } from 'class-validator';
import type { Outcome, RegistrarLink } from '@/connectors/registrar/port';
import { type Amount, amount, formatAmount, GREATEST_MINOR, plus } from '@/core/money';
import { isRefusal, type Refusal, refuse } from '@/core/refusal';
import { formatMonth, type Month } from '@/core/time';
import { selectAccount, updateAccount } from '@/database/accounts';
import { updateBalance } from '@/database/links';
import { selectSettings } from '@/database/settings';
import { changing } from '../changing';
import type { Deps } from '../deps';
import { linkOf, linkProblem } from '../links/links';
import { command } from '../people/command';
import { readRequest } from '../validate';

/** Money paid in, or a new card, at one account. */
export class FundsForm {
  @Type(() => Number)
  @IsInt()
  accountId!: number;

  @IsOptional()
  @Type(() => Number)
  @IsInt()
  @Min(1, { message: 'A top-up is more than nothing.' })
  @Max(GREATEST_MINOR, { message: 'That is more than a balance can be. Check it.' })
  topUpMinor?: number;

  @IsOptional()
  @IsString()
  @MaxLength(60)
  card?: string;

  @IsOptional()
  @Matches(/^\d{4}-(0[1-9]|1[0-2])$/, { message: 'Write the month like 02/27.' })
  endsMonth?: string;
}

/**
 * Tops up a balance or replaces a card: at the registrar first, where the account has a link, then in the books. Answers
 * what was done, in a sentence.
 */
export const changeFunds = command('changeFunds', async (deps: Deps, input: unknown): Promise<string | Refusal> => {
  const form = await readRequest(FundsForm, input);
  if (isRefusal(form)) return form;
  const account = await selectAccount(deps.database, form.accountId);
  if (!account) return refuse('account-unknown', 'That account is no longer there. Load the page again.');
  const link = account.linked ? await linkOf(deps, account.id) : null;
  const at = deps.clock();
  if (form.topUpMinor !== undefined) {
    const money = amount(form.topUpMinor, account.currency);
    const told = link ? await topUp(link, money) : null;
    if (told?.kind === 'unknown')
      return refuse(
        'top-up-unknown',
        'The registrar did not say whether the money has arrived. Read the account before you try again.',
        'topUpMinor',
      );
    if (told && told.kind !== 'done') return refuse('link-failed', linkProblem(told), 'topUpMinor');
    await changing(deps, async (tx) => {
      await updateBalance(tx, account.id, plus(amount(account.balanceMinor ?? 0, account.currency), money), at);
    });
    const { numberStyle: style } = await selectSettings(deps.database);
    return `${formatAmount(money, { style })} ${told ? 'paid in at' : 'written down for'} ${account.label}.`;
  }
  const { card, endsMonth } = form;
  if (!card || !endsMonth) return refuse('funds-empty', 'Say how much was paid in, or when the new card ends.');
  if (!account.paymentMethods.some((method) => method.kind === 'card' && method.label === card))
    return refuse('card-unknown', `${account.label} has no card ${card}.`, 'card');
  const told = link ? await link.replaceCard(card, endsMonth) : null;
  if (told && told.kind !== 'done') return refuse('link-failed', linkProblem(told), 'endsMonth');
  await changing(deps, async (tx) => {
    const paymentMethods = account.paymentMethods.map((one) => (one.label === card ? { ...one, endsMonth } : one));
    await updateAccount(tx, account.id, { ...account, paymentMethods });
  });
  return `${card} of ${account.label} is good through ${formatMonth(endsMonth as Month)}.`;
});

const MOST_SENDS = 3;

/** Sends one top-up until it is answered: its key makes sending it again harmless. */
async function topUp(link: RegistrarLink, money: Amount): Promise<Outcome<true>> {
  const key = randomUUID();
  let told = await link.topUp(money, key);
  for (let sends = 1; sends < MOST_SENDS && told.kind === 'unknown'; sends += 1) told = await link.topUp(money, key);
  return told;
}
