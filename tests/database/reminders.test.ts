import { afterAll, beforeAll, beforeEach, expect, test } from 'vitest';
import { isRefusal } from '@/core/refusal';
import { addDays, instant } from '@/core/time';
import { upsertSettings } from '@/database/settings';
import { deadlineCalendar } from '@/usecases/calendar/calendar';
import { importAtOnce } from '@/usecases/imports/importAtOnce';
import { reminderOf, seen, sendReminders, unseenNames, withdrawLinks } from '@/usecases/reminders/remind';
import { saveReminders, serveAt } from '@/usecases/reminders/settings';
import { type RunningPractice, runPractice } from '../../practice/run';
import { makeWorld } from '../../practice/world/world';
import { emptyLedger, type TestLedger, TODAY } from './ledger';

let practice: RunningPractice;
let ledger: TestLedger;
beforeAll(async () => {
  practice = await runPractice({ world: makeWorld(TODAY, [], [], []), store: null });
});
afterAll(() => practice.stop());
beforeEach(async () => {
  ledger = await emptyLedger();
  (practice.mails as unknown[]).length = 0;
  await bring('plumbline.com,2027-01-08T00:00:00Z,off\ncalm.com,2027-11-08T00:00:00Z,on');
  await set({ to: 'office@harbour-office.test' });
  return () => ledger.close();
});

const bring = (rows: string) =>
  importAtOnce(ledger, {
    content: Buffer.from(`name,expires,auto-renew\n${rows}`),
    account: 'Wrackgate',
    dateOrder: null,
    fullList: false,
    allowPrivateEndings: false,
    dryRun: false,
  });
const set = async (more: Record<string, unknown>) => {
  const saved = await saveReminders(ledger, {
    reminderDays: [60, 30, 14, 7, 3, 1],
    host: '127.0.0.1',
    port: practice.mailPort,
    from: 'ledger@harbour-office.test',
    baseUrl: 'http://127.0.0.1:4180',
    ...more,
  });
  if (isRefusal(saved)) throw new Error(saved.message);
};
// The late window of Wrackgate ends 45 days after the term, and with it the ordinary price.
const STEP = addDays(instant('2027-01-08T00:00:00Z'), 45);
const sendAt = async (daysBefore: number) => {
  ledger.setClock(addDays(STEP, -daysBefore));
  return sendReminders(ledger);
};
const subjects = () => practice.mails.map((mail) => mail.subject);

test('at each lead once, more urgently while nobody has seen it', async () => {
  expect(await sendAt(70)).toBe(0);
  expect(await sendAt(59)).toBe(1);
  expect(await sendAt(58)).toBe(0);
  expect(await sendAt(29)).toBe(1);
  expect(await sendAt(2)).toBe(1);
  expect(subjects()).toEqual([
    'Told 3 times: plumbline.com: deadlines ahead',
    'Second time: plumbline.com: deadlines ahead',
    'plumbline.com: deadlines ahead',
  ]);
  expect(practice.mails[2]?.text).toContain('Last day before the next deadline: 21 Feb 2027, in 58 days.');
  expect(practice.mails[2]?.text).toContain('The term ends 8 Jan 2027.');
  expect(practice.mails[2]?.to).toBe('office@harbour-office.test');
});

test('what has been seen by the link in its mail is not told again', async () => {
  await sendAt(59);
  const token = /seen\/([0-9a-f-]{36})/.exec(practice.mails[0]?.text ?? '')?.[1] ?? '';
  expect(await unseenNames(ledger)).toHaveLength(1);
  expect(await seen(ledger, token)).toBe('plumbline.com');
  expect(await seen(ledger, token)).toBe('plumbline.com');
  expect(await unseenNames(ledger)).toEqual([]);
  expect(await sendAt(29)).toBe(0);
  expect(await seen(ledger, "' or 1=1")).toMatchObject({ code: 'reminder-unknown' });
});

test('looking at a link changes nothing; it ends after sixty days, and can be withdrawn', async () => {
  await sendAt(59);
  const token = /seen\/([0-9a-f-]{36})/.exec(practice.mails[0]?.text ?? '')?.[1] ?? '';
  for (let looks = 0; looks < 3; looks += 1)
    expect(await reminderOf(ledger, token)).toEqual({
      ascii: 'plumbline.com',
      unicode: 'plumbline.com',
      isSeen: false,
    });
  expect(await unseenNames(ledger)).toHaveLength(1);
  ledger.setClock(addDays(STEP, 2));
  expect(await reminderOf(ledger, token)).toMatchObject({ code: 'reminder-unknown' });
  expect(await seen(ledger, token)).toMatchObject({ code: 'reminder-unknown' });
  ledger.setClock(addDays(STEP, -59));
  expect(await withdrawLinks(ledger)).toBe(1);
  expect(await seen(ledger, token)).toMatchObject({ code: 'reminder-unknown' });
  // The next mail has a link that holds.
  await sendAt(29);
  const next = /seen\/([0-9a-f-]{36})/.exec(practice.mails[0]?.text ?? '')?.[1] ?? '';
  expect(next).not.toBe(token);
  expect(await seen(ledger, next)).toBe('plumbline.com');
});

test('a clock that is set forward a day and back again tells nothing twice, and loses nothing', async () => {
  expect(await sendAt(59)).toBe(1);
  expect(await sendAt(60)).toBe(0);
  expect(await sendAt(58)).toBe(0);
  expect(await sendAt(59)).toBe(0);
  expect(subjects()).toHaveLength(1);
  expect(await sendAt(29)).toBe(1);
  expect(await sendAt(30)).toBe(0);
  expect(await sendAt(28)).toBe(0);
  expect(subjects()).toHaveLength(2);
});

test('at once when a charge has failed, and when a name is in danger that must never be lost', async () => {
  ledger.setClock(TODAY);
  await bring('larchpilot.com,2026-12-20T00:00:00Z,stalled');
  expect(await sendReminders(ledger)).toBe(1);
  expect(subjects()).toEqual(['larchpilot.com: in danger']);
  expect(practice.mails[0]?.text).toContain('Its automatic charge has failed.');
  expect(await sendReminders(ledger)).toBe(0);
});

test('a mail server that is away is tried again: nothing counts as told', async () => {
  await set({ to: 'office@harbour-office.test', port: 1 });
  await expect(sendAt(59)).rejects.toThrow();
  expect(await unseenNames(ledger)).toEqual([]);
  await set({ to: 'office@harbour-office.test' });
  expect(await sendAt(59)).toBe(1);
});

test('without an address no mails are sent; what makes no sense is refused in words', async () => {
  await set({ to: '' });
  expect(await sendAt(59)).toBe(0);
  expect(await saveReminders(ledger, { reminderDays: [1], to: 'nobody', baseUrl: 'http://x' })).toMatchObject({
    message: 'Write a mail address like office@harbour.example.',
  });
  expect(await saveReminders(ledger, { reminderDays: [1], to: 'a@b.test', baseUrl: 'http://x' })).toMatchObject({
    code: 'mail-server-missing',
  });
});

test('days are the office’s: an evening in Los Angeles is a day before the one in UTC', async () => {
  await upsertSettings(ledger.database, { zone: 'America/Los_Angeles' });
  // 23:00 on the 24th there; the step is at 16:00 on 21 February there.
  ledger.setClock(instant('2026-12-25T07:00:00Z'));
  expect(await sendReminders(ledger)).toBe(1);
  expect(practice.mails[0]?.text).toContain('Last day before the next deadline: 20 Feb 2027, in 58 days.');
  expect(practice.mails[0]?.text).toContain('The term ends 7 Jan 2027.');
});

test('links lead to the port that the program serves now; an address of one’s own stays', async () => {
  const linkAt = async () => {
    (practice.mails as unknown[]).length = 0;
    await sendReminders(ledger);
    return /Seen: (\S+)\/today/.exec(practice.mails[0]?.text ?? '')?.[1];
  };
  await serveAt(ledger.database, 'http://127.0.0.1:4999');
  ledger.setClock(addDays(STEP, -59));
  expect(await linkAt()).toBe('http://127.0.0.1:4999');
  await set({ to: 'office@harbour-office.test', baseUrl: 'https://names.harbour-office.test' });
  await serveAt(ledger.database, 'http://127.0.0.1:4180');
  ledger.setClock(addDays(STEP, -29));
  expect(await linkAt()).toBe('https://names.harbour-office.test');
});

test('a holder’s mail to confirm is told at each lead, and once more when the name is on hold; the feed has its last day', async () => {
  await ledger.database.query("update names set confirm_mail_by = '2026-12-10T00:00:00Z' where ascii = 'calm.com'");
  ledger.setClock(instant('2026-12-04T12:00:00Z'));
  expect(await sendReminders(ledger)).toBe(1);
  expect(practice.mails[0]?.text).toContain('has to be confirmed by 9 Dec 2026');
  expect(await sendReminders(ledger)).toBe(0);
  expect((await deadlineCalendar(ledger)).replaceAll('\r\n ', '')).toContain(
    'calm.com: last day to confirm the holder’s mail address',
  );
  ledger.setClock(instant('2026-12-10T00:00:00Z'));
  expect(await sendReminders(ledger)).toBe(1);
  expect(practice.mails[0]?.text).toContain('On hold');
});
