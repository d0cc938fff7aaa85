import type { WhatIf } from '@/core/ledger';
import { isRefusal, refuse } from '@/core/refusal';
import { addDays } from '@/core/time';
import { type HeldAccount, heldAccount, heldAccounts, removeAccount, saveAccount } from '@/usecases/accounts/accounts';
import { changeFunds, FundsForm } from '@/usecases/accounts/funds';
import { AccountForm } from '@/usecases/accounts/requests';
import { compute } from '@/usecases/computing';
import type { LinkRow } from '@/usecases/links/links';
import { link, links, removeLink, saveLink, testLink } from '@/usecases/links/links';
import { type MessageRow, messagesSince } from '@/usecases/links/messages';
import { ChangeNameServers, changeNameServers, type NameServersChanged } from '@/usecases/links/nameServers';
import { readAccount } from '@/usecases/links/readAccount';
import { LinkForm } from '@/usecases/links/requests';
import { asOfFrom } from '@/usecases/names/list';
import { idIn } from '../asked';
import { accountDocument, forecast, linkDocument, message } from '../documents/accounts';
import { begun, carriedOut, found, said } from '../documents/answers';
import { documentOf, from, list, orNull, text, whole } from '../kinds';
import { type AnyOperation, type Asked, operation } from '../operation';

/** What is asked of the days ahead: until when, and what would be otherwise. */
const UNTIL = {
  until: { schema: { type: 'string', format: 'date-time' }, description: 'Up to two years ahead; a year unless said.' },
};

const WHAT_IF = {
  ...UNTIL,
  topUpMinor: { schema: { type: 'integer', minimum: 0 }, description: 'Paid in now, in minor units of its currency.' },
  card: { schema: { type: 'string' }, description: 'The label of a card that is replaced.' },
  endsMonth: { schema: { type: 'string' }, description: 'The last month of the new card, `2029-02`.' },
};

async function forecastOf(asked: Asked, thought: Omit<WhatIf, 'accountId'> | null) {
  const { deps, query } = asked;
  const today = deps.clock();
  const written = query.get('until');
  const until = written === null ? addDays(today, 365) : asOfFrom(new URLSearchParams({ asOf: written }), today);
  if (isRefusal(until)) return { ...until, field: 'until' };
  return found(await compute(deps, 'accountForecast', idIn(asked), until, thought), 'account');
}

const theAccount = async (asked: Asked, id = idIn(asked)) => found(await heldAccount(asked.deps, id), 'account');

export const ACCOUNTS: readonly AnyOperation[] = [
  operation({
    method: 'GET',
    path: '/accounts',
    summary: 'Accounts and their rules',
    answer: documentOf<HeldAccount[]>()({ accounts: from((rows: HeldAccount[]) => rows, list(accountDocument)) }),
    run: ({ deps }) => heldAccounts(deps),
  }),
  operation({
    method: 'POST',
    path: '/accounts',
    summary: 'Add an account',
    body: AccountForm,
    status: 201,
    answer: accountDocument,
    run: async (asked) => {
      const id = await saveAccount(asked.deps, null, asked.body);
      return isRefusal(id) ? id : theAccount(asked, id);
    },
  }),
  operation({
    method: 'GET',
    path: '/accounts/{id}',
    summary: 'One account',
    answer: accountDocument,
    run: (asked) => theAccount(asked),
  }),
  operation({
    method: 'PUT',
    path: '/accounts/{id}',
    summary: 'Write the rules of an account anew',
    body: AccountForm,
    answer: accountDocument,
    run: async (asked) => {
      const id = await saveAccount(asked.deps, idIn(asked), asked.body);
      return isRefusal(id) ? id : theAccount(asked);
    },
  }),
  operation({
    method: 'DELETE',
    path: '/accounts/{id}',
    summary: 'Remove an account that has no names',
    answer: carriedOut,
    run: (asked) => removeAccount(asked.deps, idIn(asked)),
  }),
  operation({
    method: 'POST',
    path: '/accounts/{accountId}/funds',
    summary: 'Pay into an account, or replace its card',
    body: FundsForm,
    fills: { accountId: 'accountId' },
    spends: true,
    answer: said,
    run: ({ deps, body }) => changeFunds(deps, body),
  }),
  operation({
    method: 'GET',
    path: '/accounts/{id}/funding',
    summary: 'What an account will charge, what fails, and what it lacks',
    query: UNTIL,
    answer: forecast,
    run: (asked) => forecastOf(asked, null),
  }),
  operation({
    method: 'GET',
    path: '/accounts/{id}/what-if',
    summary: 'The same if it were topped up, or its card replaced: nothing is written',
    query: WHAT_IF,
    answer: forecast,
    run: (asked) => {
      const topUp = Number(asked.query.get('topUpMinor') ?? 0);
      if (!Number.isSafeInteger(topUp) || topUp < 0)
        return Promise.resolve(refuse('query-invalid', 'topUpMinor is a whole number.', 'topUpMinor'));
      const [label, endsMonth] = [asked.query.get('card'), asked.query.get('endsMonth')];
      if (endsMonth !== null && !/^\d{4}-(0[1-9]|1[0-2])$/.test(endsMonth))
        return Promise.resolve(refuse('query-invalid', 'endsMonth is a month like 2029-02.', 'endsMonth'));
      return forecastOf(asked, { topUpMinor: topUp, card: label && endsMonth ? { label, endsMonth } : null } as never);
    },
  }),
  operation({
    method: 'GET',
    path: '/links',
    summary: 'Links to registrars',
    answer: documentOf<LinkRow[]>()({ links: from((rows: LinkRow[]) => rows, list(linkDocument)) }),
    run: ({ deps }) => links(deps),
  }),
  operation({
    method: 'GET',
    path: '/accounts/{id}/link',
    summary: 'The link of an account',
    answer: linkDocument,
    run: async (asked) => found(await link(asked.deps, idIn(asked)), 'link'),
  }),
  operation({
    method: 'PUT',
    path: '/accounts/{accountId}/link',
    summary: 'Set the link of an account',
    body: LinkForm,
    fills: { accountId: 'accountId' },
    answer: carriedOut,
    run: ({ deps, body }) => saveLink(deps, body),
  }),
  operation({
    method: 'DELETE',
    path: '/accounts/{id}/link',
    summary: 'Take the link of an account away',
    answer: carriedOut,
    run: (asked) => removeLink(asked.deps, idIn(asked)),
  }),
  operation({
    method: 'POST',
    path: '/accounts/{id}/link/test',
    summary: 'Log in at the registrar; answers what it calls itself',
    answer: said,
    run: (asked) => testLink(asked.deps, idIn(asked)),
  }),
  operation({
    method: 'POST',
    path: '/accounts/{id}/link/read',
    summary: 'Read the whole account; answers the import that shows what differs',
    answer: begun,
    run: (asked) => readAccount(asked.deps, idIn(asked)),
  }),
  operation({
    method: 'GET',
    path: '/messages',
    summary: 'What registrars told by their links in the last thirty days',
    answer: documentOf<MessageRow[]>()({ messages: from((rows: MessageRow[]) => rows, list(message)) }),
    run: ({ deps }) => messagesSince(deps, addDays(deps.clock(), -30)),
  }),
  operation({
    method: 'POST',
    path: '/name-servers',
    summary: 'Change the name servers of names, by link where there is one',
    body: ChangeNameServers,
    answer: documentOf<NameServersChanged>()({
      batchId: orNull(whole),
      changed: whole,
      summary: text,
      problems: list(documentOf<{ name: string; problem: string }>()({ name: text, problem: text })),
    }),
    run: ({ deps, body }) => changeNameServers(deps, body),
  }),
];
