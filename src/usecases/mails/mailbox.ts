import { Type } from 'class-transformer';
import { IsEmail, IsInt, IsOptional, IsString, Matches, Max, MaxLength, Min } from 'class-validator';
import { mayAsk, notPublic } from '@/connectors/http/addresses';
import { fetchMails } from '@/connectors/mail/mailbox';
import { isRefusal, type Refusal, refuse } from '@/core/refusal';
import { addDays } from '@/core/time';
import { whileAlone } from '@/database/locks';
import { sealPlace } from '@/database/secrets';
import { type MailboxSettings, noteMailboxRead, selectSettings, upsertSettings } from '@/database/settings';
import { changing } from '../changing';
import type { Deps } from '../deps';
import { causeOf } from '../log';
import { command } from '../people/command';
import { seal, unseal } from '../secrets/seal';
import { readRequest } from '../validate';
import { takeInMails } from './takeIn';

/** Where mails of registrars are fetched from. Without a host from nowhere. */
export class MailboxForm {
  @IsOptional()
  @Matches(/^[A-Za-z0-9.:-]{1,253}$/, { message: 'Write the mail server like imap.harbour.example.' })
  host?: string;

  @IsOptional()
  @Type(() => Number)
  @IsInt({ message: 'Write the port as a number, like 993.' })
  @Min(1)
  @Max(65_535)
  port?: number;

  @IsOptional()
  @IsString()
  @MaxLength(200)
  user?: string;

  @IsOptional()
  @IsString()
  @MaxLength(200)
  password?: string;

  @IsOptional()
  @IsString()
  @MaxLength(200)
  folder?: string;
}

/** An address of the office's own at which mails are taken in. Without one none are. */
export class ReceivingForm {
  @IsOptional()
  @IsEmail({ require_tld: false }, { message: 'Write an address like registrars@harbour.example.' })
  address?: string;

  @IsOptional()
  @Type(() => Number)
  @IsInt({ message: 'Write the port as a number, like 2525.' })
  @Min(1024, { message: 'Choose a port from 1024 on.' })
  @Max(65_535)
  port?: number;
}

/** What is fetched at first: not older than this. */
const FIRST_DAYS = 30;

/** Sets the mailbox. The password is sealed at once; without a new one the kept one stays, as long as nothing else changes. */
export const saveMailbox = command('saveMailbox', async (deps: Deps, input: unknown): Promise<true | Refusal> => {
  const form = await readRequest(MailboxForm, input);
  if (isRefusal(form)) return form;
  const { host, port = 993, user, password, folder = 'INBOX' } = form;
  if (!host) {
    await changing(deps, (tx) => upsertSettings(tx, { mailbox: null }));
    return true;
  }
  if (!user) return refuse('mailbox-user-missing', 'Write the user of the mailbox.', 'user');
  const { records, mailbox: before } = await selectSettings(deps.database);
  if (!mayAsk(host, records.allowedHosts)) return refuse('host-not-public', notPublic(host), 'host');
  if (!deps.key) return refuse('no-key', 'Start the program with bin/start: it seals passwords.', 'password');
  const isSame = before?.host === host && before.port === port && before.user === user;
  if (!password && !isSame)
    return refuse('password-missing', 'Write the password: a kept one goes only where it was given for.', 'password');
  const sealedPassword = password
    ? (await seal(deps.key, sealPlace.mailbox(), password)).toString('base64')
    : (before?.sealedPassword ?? '');
  const place = isSame && before.folder === folder ? before.place : null;
  const mailbox: MailboxSettings = { host, port, user, sealedPassword, folder, place, readAt: null, problem: null };
  await changing(deps, (tx) => upsertSettings(tx, { mailbox }));
  return true;
});

/** Sets where mails are received; the jobs listen there within seconds. */
export const saveReceiving = command('saveReceiving', async (deps: Deps, input: unknown): Promise<true | Refusal> => {
  const form = await readRequest(ReceivingForm, input);
  if (isRefusal(form)) return form;
  const { address, port } = form;
  if (address && !port) return refuse('port-missing', 'Write the port to listen on, like 2525.', 'port');
  const receiving = address && port ? { address: address.toLowerCase(), port } : null;
  await changing(deps, (tx) => upsertSettings(tx, { receiving }));
  return true;
});

/** Fetches what has come to the mailbox, one process at a time. Answers how many mails are new. */
export const readMailbox = command('readMailbox', async (deps: Deps): Promise<number | Refusal> => {
  const read = await whileAlone(deps.database, 'mailbox', () => fetchNew(deps));
  return read ?? refuse('mailbox-busy', 'The mailbox is being read already. Look again in a moment.');
});

async function fetchNew(deps: Deps): Promise<number | Refusal> {
  const { mailbox, records } = await selectSettings(deps.database);
  if (!mailbox) return refuse('mailbox-missing', 'Save the mailbox first.', 'host');
  const password = deps.key
    ? await unseal(deps.key, sealPlace.mailbox(), Buffer.from(mailbox.sealedPassword, 'base64'))
    : null;
  if (password === null) return refuse('password-missing', 'Write the password of the mailbox again.', 'password');
  const { host, port, user, folder, place } = mailbox;
  try {
    const from = { host, port, user, password, folder, allowedHosts: records.allowedHosts };
    const since = new Date(addDays(deps.clock(), -FIRST_DAYS));
    const { mails, validity } = await fetchMails(from, place, since);
    let fresh = 0;
    for (const { uid, raw } of mails) {
      const taken = await takeInMails(deps, raw, 'mailbox');
      // What cannot be read is passed over: it would stand in the way for ever.
      if (!isRefusal(taken)) fresh += taken.ids.length;
      await noteMailboxRead(deps.database, mailbox, { place: { validity, lastUid: uid } });
    }
    await noteMailboxRead(deps.database, mailbox, { readAt: deps.clock(), problem: null });
    return fresh;
  } catch (error) {
    deps.log.warn({ err: error }, 'the mailbox could not be read');
    const problem = problemWords(error);
    await noteMailboxRead(deps.database, mailbox, { problem });
    return refuse('mailbox-failed', problem, 'host');
  }
}

function problemWords(error: unknown): string {
  const { authenticationFailed, responseText } = error as { authenticationFailed?: boolean; responseText?: string };
  if (authenticationFailed) return 'The mailbox did not take this user and password.';
  return `The mailbox could not be read: ${(responseText || causeOf(error).message).slice(0, 200)}.`;
}

/** For the jobs: reads the mailbox where there is one. */
export async function readMailboxIfAny(deps: Deps): Promise<void> {
  if ((await selectSettings(deps.database)).mailbox) await readMailbox(deps);
}
