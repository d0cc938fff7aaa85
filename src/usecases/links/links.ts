import { mayAsk, notPublic } from '@/connectors/http/addresses';
import type { Outcome, RegistrarLink } from '@/connectors/registrar/port';
import { EPP_RESULT } from '@/connectors/registrar/results';
import { isRefusal, type Refusal, refuse } from '@/core/refusal';
import { type LinkRow, noteLink, selectLink, selectLinkSecret, selectLinks, updateLink } from '@/database/links';
import { endPause } from '@/database/parts';
import { sealPlace } from '@/database/secrets';
import { selectSettings } from '@/database/settings';
import type { Deps } from '../deps';
import { seal, unseal } from '../secrets/seal';
import { readRequest } from '../validate';
import { LinkForm } from './requests';

export type { LinkRow } from '@/database/links';

import { changing } from '../changing';
import { command } from '../people/command';

/** Every account's link, without its secret. */
export function links(deps: Deps): Promise<LinkRow[]> {
  return selectLinks(deps.database);
}

/** The link of one account, without its secret; `null` for one that is kept by hand. */
export function link(deps: Deps, accountId: number): Promise<LinkRow | null> {
  return selectLink(deps.database, accountId);
}

/** The link of an account, ready for use; `null` for an account that is kept by hand, or whose password cannot be opened. */
export async function linkOf(deps: Deps, accountId: number): Promise<RegistrarLink | null> {
  const row = await selectLink(deps.database, accountId);
  const secret = row && (await selectLinkSecret(deps.database, accountId));
  const password = secret && deps.key && (await unseal(deps.key, sealPlace.account(accountId), secret));
  if (!row || password === null) return null;
  const { allowedHosts } = (await selectSettings(deps.database)).records;
  const address = { host: row.host, port: row.port, login: row.login, password, allowedHosts };
  const known = deps.links.get(accountId);
  const same = JSON.stringify(address);
  if (known?.address === same) return known.link;
  await known?.link.close();
  const link = deps.connect(address);
  deps.links.set(accountId, { address: same, link });
  return link;
}

/** Sets the link of an account, or changes it. The password is sealed at once and never shown again. */
export const saveLink = command('saveLink', async (deps: Deps, input: unknown): Promise<true | Refusal> => {
  const form = await readRequest(LinkForm, input);
  if (isRefusal(form)) return form;
  if (!deps.key)
    return refuse(
      'no-key',
      'Start the program with bin/start, or set NAME_LEDGER_KEY to a long text of your own: it seals passwords.',
    );
  const host = form.host.toLowerCase();
  const { allowedHosts } = (await selectSettings(deps.database)).records;
  if (!mayAsk(host, allowedHosts)) return refuse('host-not-public', notPublic(host), 'host');
  const secret =
    form.password === undefined
      ? await keptSecret(deps, { ...form, host })
      : await seal(deps.key, sealPlace.account(form.accountId), form.password);
  if (isRefusal(secret)) return secret;
  return changing(deps, async (tx) => {
    const there = await updateLink(tx, form.accountId, {
      host,
      port: form.port,
      login: form.login,
      secret,
    });
    if (!there) return refuse('account-unknown', 'That account is no longer there. Load the page again.');
    await endPause(tx, 'account', form.accountId);
    return true as const;
  });
});

/** The password that is kept, while it goes nowhere else: another host, port or login asks for it again. */
async function keptSecret(
  deps: Deps,
  { accountId, host, port, login }: Pick<LinkForm, 'accountId' | 'host' | 'port' | 'login'>,
): Promise<Buffer | Refusal> {
  const before = await selectLink(deps.database, accountId);
  const kept = await selectLinkSecret(deps.database, accountId);
  if (!before || !kept) return refuse('password-missing', 'Write the password of this login.', 'password');
  if (before.host !== host || before.port !== port || before.login !== login)
    return refuse(
      'password-for-new-address',
      'The address or the login is another one now. Write its password: the kept one goes only where it was given for.',
      'password',
    );
  if (!deps.key || (await unseal(deps.key, sealPlace.account(accountId), kept)) === null)
    return refuse('password-other-key', 'The kept password was sealed with another key. Write it again.', 'password');
  return kept;
}

/** Takes a link away: from then on the account is kept by hand. */
export const removeLink = command('removeLink', async (deps: Deps, accountId: number): Promise<true> => {
  await changing(deps, async (tx) => {
    await updateLink(tx, accountId, null);
  });
  const known = deps.links.get(accountId);
  deps.links.delete(accountId);
  await known?.link.close();
  return true;
});

/** Logs in and says what the registrar calls itself. */
export const testLink = command('testLink', async (deps: Deps, accountId: number): Promise<string | Refusal> => {
  const link = await linkOf(deps, accountId);
  if (!link) return noLink();
  const tested = await link.test();
  const problem = tested.kind === 'done' ? null : linkProblem(tested);
  await noteLink(deps.database, accountId, { problem });
  if (problem === null) await endPause(deps.database, 'account', accountId);
  return tested.kind === 'done' ? tested.value : refuse('link-failed', problem ?? '');
});

export function noLink(): Refusal {
  return refuse('no-link', 'This account has no link that works. Set its link under Setup, Accounts.');
}

/** Authentication, and the ends of a session for want of it. All other codes speak of the command. */
const LOGIN_REFUSED: ReadonlySet<number> = new Set([
  EPP_RESULT.authenticationError,
  EPP_RESULT.authenticationErrorAndClosed,
]);

/** What went wrong on a link, as a sentence that says what to do. */
export function linkProblem(outcome: Exclude<Outcome<unknown>, { kind: 'done' }>): string {
  switch (outcome.kind) {
    case 'pending':
      return 'The registrar has not finished this yet. Look again later.';
    case 'unknown':
      return `The registrar did not answer (${outcome.cause}). Try again; if it goes on, check host and port.`;
    case 'refused':
      return LOGIN_REFUSED.has(outcome.code)
        ? `The registrar refused the login (${outcome.reason}). Check login and password.`
        : `The registrar refused (${outcome.reason}).`;
  }
}
