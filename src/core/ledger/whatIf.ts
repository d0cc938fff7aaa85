import type { TermEnd } from '../time';
import { indexRules } from './costs';
import type { LedgerName } from './data';
import { type Projection, projectLedger } from './projection';

/** A thought about one account: money paid in, another card, names renewed already. */
export interface WhatIf {
  readonly accountId: number;
  /** Minor units of the account's currency; below nothing for what is taken. */
  readonly topUpMinor: number;
  /** The card by its label, with the month through which it is good. */
  readonly card: { readonly label: string; readonly endsMonth: string } | null;
  readonly renewed?: readonly { readonly nameId: number; readonly newEnd: TermEnd }[];
}

/** The projection of one account's names if the thought were true. Nothing is changed by it. */
export function projectIf({ index, names, asOf }: Projection, thought: WhatIf): Projection {
  const { accountId, topUpMinor, card, renewed = [] } = thought;
  const accounts = index.rules.accounts
    .filter(({ id }) => id === accountId)
    .map((account) => ({
      ...account,
      balanceMinor: account.balanceMinor === null ? null : account.balanceMinor + topUpMinor,
      paymentMethods: account.paymentMethods.map((method) =>
        card && method.label === card.label ? { ...method, ...card } : method,
      ),
    }));
  const newEnds = new Map(renewed.map(({ nameId, newEnd }) => [nameId, newEnd]));
  const own: LedgerName[] = [];
  for (let place = 0; place < names.length; place += 1) {
    if (names.accountId(place) !== accountId) continue;
    const name = names.at(place);
    own.push({ ...name, termEnd: newEnds.get(name.id) ?? name.termEnd });
  }
  return projectLedger(indexRules({ ...index.rules, accounts }), own, asOf);
}
