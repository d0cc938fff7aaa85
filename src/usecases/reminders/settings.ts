import { Type } from 'class-transformer';
import {
  ArrayMaxSize,
  IsArray,
  IsEmail,
  IsInt,
  IsOptional,
  IsString,
  Matches,
  Max,
  MaxLength,
  Min,
} from 'class-validator';
import { isRefusal, type Refusal, refuse } from '@/core/refusal';
import type { Queryable } from '@/database/pool';
import { sealPlace } from '@/database/secrets';
import { selectSettings, upsertSettings } from '@/database/settings';
import { changing } from '../changing';
import type { Deps } from '../deps';
import { causeOf } from '../log';
import { command } from '../people/command';
import { seal } from '../secrets/seal';
import { readRequest } from '../validate';
import { mailOffice } from './mailOffice';

/** When and to whom reminders are mailed, and through which server. Without `to` none are. */
export class RemindersForm {
  @IsArray()
  @ArrayMaxSize(12, { message: 'Twelve reminders at the most.' })
  @IsInt({ each: true, message: 'Write days as whole numbers, like 60, 30, 7, 1.' })
  @Min(0, { each: true, message: 'A reminder comes 0 to 365 days before.' })
  @Max(365, { each: true, message: 'A reminder comes 0 to 365 days before.' })
  reminderDays!: number[];

  @IsOptional()
  @IsEmail({ require_tld: false }, { message: 'Write a mail address like office@harbour.example.' })
  to?: string;

  @IsOptional()
  @IsEmail({ require_tld: false }, { message: 'Write a mail address like ledger@harbour.example.' })
  from?: string;

  @IsOptional()
  @Matches(/^[A-Za-z0-9.:-]{1,253}$/, { message: 'Write the mail server like mail.harbour.example.' })
  host?: string;

  @IsOptional()
  @Type(() => Number)
  @IsInt({ message: 'Write the port as a number, like 587.' })
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

  @Matches(/^https?:\/\/[^\s]{1,200}$/, { message: 'Write where this program is reached, like http://127.0.0.1:4180.' })
  baseUrl!: string;
}

/** Sets the leads and the mail server. The password is sealed at once; without a new one the kept one stays. */
export const saveReminders = command('saveReminders', async (deps: Deps, input: unknown): Promise<true | Refusal> => {
  const form = await readRequest(RemindersForm, input);
  if (isRefusal(form)) return form;
  const leads = { reminderDays: [...new Set(form.reminderDays)].sort((a, b) => b - a), baseUrl: form.baseUrl };
  if (!form.to) {
    await changing(deps, (tx) => upsertSettings(tx, { ...leads, mail: null }));
    return true;
  }
  if (!form.host || !form.port) return refuse('mail-server-missing', 'Write the mail server and its port.', 'host');
  if (form.password && !deps.key)
    return refuse(
      'no-key',
      'Start the program with bin/start, or set NAME_LEDGER_KEY: it seals passwords.',
      'password',
    );
  const { to, host, port } = form;
  const before = (await selectSettings(deps.database)).mail;
  const kept = before?.sealedPassword ?? null;
  const isElsewhere = before?.host !== host || before.port !== port || before.user !== (form.user ?? null);
  if (form.user && !form.password && kept !== null && isElsewhere)
    return refuse(
      'password-for-new-address',
      'The mail server or the login is another one now. Write its password: the kept one goes only where it was given for.',
      'password',
    );
  const sealedPassword =
    form.password && deps.key
      ? (await seal(deps.key, sealPlace.mail(), form.password)).toString('base64')
      : isElsewhere
        ? null
        : kept;
  const mail = { to, host, port, from: form.from ?? to, user: form.user ?? null, sealedPassword };
  await changing(deps, (tx) => upsertSettings(tx, { ...leads, mail }));
  return true;
});

/** Sends a mail that says that mails arrive, to whom reminders go. Answers to whom. */
export const sendTestMail = command('sendTestMail', async (deps: Deps): Promise<string | Refusal> => {
  const { mail } = await selectSettings(deps.database);
  if (!mail) return refuse('mail-server-missing', 'Save the mail server first.', 'host');
  try {
    await mailOffice(deps, 'Name Ledger: a test', (base) => [
      'This mail was asked for under Setup. Reminders arrive as it did.',
      `The ledger is at ${base}.`,
    ]);
    return mail.to;
  } catch (error) {
    deps.log.warn({ err: error }, 'the test mail could not be sent');
    return refuse(
      'mail-failed',
      `${mail.host} did not take it (${causeOf(error).message.slice(0, 160)}). Check server, port, user and password.`,
    );
  }
});

/** An address of this machine itself: it follows the port that the program serves. */
const OWN_ADDRESS = /^http:\/\/(?:127\.0\.0\.1|localhost|\[::1\])(?::\d+)?\/?$/;

/** Notes where the program serves from now on, for the links in mails. An address that the office has set is left as it is. */
export async function serveAt(database: Queryable, origin: string): Promise<void> {
  const { baseUrl } = await selectSettings(database);
  if (baseUrl !== origin && OWN_ADDRESS.test(baseUrl)) await upsertSettings(database, { baseUrl: origin });
}
