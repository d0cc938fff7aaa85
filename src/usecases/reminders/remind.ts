import { randomUUID } from 'node:crypto';
import { sendMail } from '@/connectors/mail/mail';
import { type DueReminder, everyRow, mailReminderFor, reminderFor } from '@/core/ledger';
import { type Refusal, refuse } from '@/core/refusal';
import { addDays } from '@/core/time';
import { transaction } from '@/database/pool';
import {
  acknowledge,
  acknowledgeNames,
  type ReminderDraft,
  selectReminderOf,
  selectReminders,
  upsertReminders,
  withdrawReminderLinks,
} from '@/database/reminders';
import { sealPlace } from '@/database/secrets';
import { selectSettings } from '@/database/settings';
import type { Deps } from '../deps';
import { projectedLedger } from '../names/ledger';
import { command } from '../people/command';
import { unseal } from '../secrets/seal';
import { writeDigest } from './digest';

const reminderKey = (nameId: number, at: number, kind: string) => `${nameId} ${at} ${kind}`;

/**
 * Sends one digest of everything that has come nearer than its next lead, or is in danger at once, and that nobody has
 * acknowledged. What was told at this lead already is not told again. Answers how many names it told of.
 */
export const sendReminders = command('sendReminders', async (deps: Deps): Promise<number> => {
  const settings = await selectSettings(deps.database);
  const { mail } = settings;
  if (!mail) return 0;
  const asOf = deps.clock();
  const [projection, sent] = await Promise.all([projectedLedger(deps), selectReminders(deps.database, asOf)]);
  const known = new Map(sent.map((one) => [reminderKey(one.nameId, one.stepAt, one.kind), one]));
  const due = everyRow(projection, asOf).flatMap((row): DueReminder[] => {
    return [reminderFor(row, asOf, settings.reminderDays), mailReminderFor(row, asOf, settings.reminderDays)].flatMap(
      (reminder) => {
        if (!reminder) return [];
        const before = known.get(reminderKey(reminder.row.name.id, reminder.at, reminder.kind));
        return before && (before.acknowledged || before.stage <= reminder.stage) ? [] : [reminder];
      },
    );
  });
  if (due.length === 0) return 0;
  const base = settings.baseUrl.replace(/\/$/, '');
  const drafts = due.map((reminder): ReminderDraft => {
    const { id } = reminder.row.name;
    const token = known.get(reminderKey(id, reminder.at, reminder.kind))?.token ?? randomUUID();
    return { nameId: id, stepAt: reminder.at, kind: reminder.kind, stage: reminder.stage, token };
  });
  const texts = writeDigest(
    due.map((reminder, i) => ({
      reminder,
      account: projection.index.accounts.get(reminder.row.name.accountId)?.label ?? '',
      toldBefore: known.get(reminderKey(reminder.row.name.id, reminder.at, reminder.kind))?.times ?? 0,
      link: `${base}/today/seen/${drafts[i]?.token}`,
    })),
    asOf,
    settings,
    `${base}/today`,
  );
  const password =
    mail.sealedPassword && deps.key
      ? await unseal(deps.key, sealPlace.mail(), Buffer.from(mail.sealedPassword, 'base64'))
      : null;
  // Sent, then noted: a server that is away is tried again, and a crash in between tells the same thing twice.
  await sendMail(
    { ...mail, password, allowedHosts: settings.records.allowedHosts },
    { from: mail.from, to: mail.to, ...texts },
  );
  await transaction(deps.database, (tx) => upsertReminders(tx, drafts, asOf, addDays(asOf, LINK_DAYS)));
  return due.length;
});

/** A link in a mail holds for so long: what it is about has its date by then. */
const LINK_DAYS = 60;

const TOKEN = /^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/;
const GONE = refuse(
  'reminder-unknown',
  'This link does not hold any more. Today shows everything that needs a decision.',
);

/** What the link in a mail is about. Looking changes nothing: mail programs look at links too. */
export async function reminderOf(
  deps: Deps,
  token: string,
): Promise<{ readonly ascii: string; readonly unicode: string; readonly isSeen: boolean } | Refusal> {
  const found = TOKEN.test(token) ? await selectReminderOf(deps.database, token, deps.clock()) : null;
  return found ?? GONE;
}

/** Takes note that a reminder has been seen, by the button behind the link in its mail. Answers the name. */
export async function seen(deps: Deps, token: string): Promise<string | Refusal> {
  const name = TOKEN.test(token) ? await acknowledge(deps.database, token, deps.clock()) : null;
  return name ?? GONE;
}

/** Withdraws the links in all mails that were sent. Answers how many. */
export const withdrawLinks = command('withdrawLinks', (deps: Deps): Promise<number> => {
  return withdrawReminderLinks(deps.database);
});

/** Takes note that everything told of these names has been seen, in Today. */
export const seenNames = command('seenNames', async (deps: Deps, nameIds: readonly number[]): Promise<true> => {
  await acknowledgeNames(deps.database, nameIds, deps.clock());
  return true;
});

/** Names that were told of and that nobody has acknowledged. */
export async function unseenNames(deps: Deps): Promise<number[]> {
  const reminders = await selectReminders(deps.database, deps.clock());
  return [...new Set(reminders.filter((one) => !one.acknowledged).map((one) => one.nameId))];
}
