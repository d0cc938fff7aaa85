import { describe, expect, test } from 'vitest';
import { type DueReminder, indexRules, mailReminderFor, projectLedger, reminderFor, rowsOn } from '@/core/ledger';
import { nameWith, rulesWith, TODAY } from '@/core/ledger/sampleLedger';
import { addDays, type Instant } from '@/core/time';
import { writeDigest } from './digest';

const LEADS = [60, 30, 7];
const rowOf = (...of: Parameters<typeof nameWith>) => {
  const projection = projectLedger(indexRules(rulesWith()), [nameWith(...of)], TODAY);
  return rowsOn(projection, TODAY)(0);
};
const digest = (reminder: DueReminder | null, zone = 'UTC', asOf: Instant = TODAY) => {
  if (!reminder) throw new Error('nothing is due');
  const line = { reminder, account: 'Quaymark', toldBefore: 0, link: 'http://127.0.0.1:4180/today/seen/1' };
  return writeDigest([line], asOf, { zone, numberStyle: '1,234.50' }, 'http://127.0.0.1:4180/today');
};

describe('what a mail says', () => {
  test('the last whole day, in how many days that is, both prices, and when the term ends', () => {
    // Late for 45 days from 20 October: until 4 December midnight, so the 3rd is the last whole day.
    const { text, subject } = digest(reminderFor(rowOf('kelpkiln.com', '2026-10-20T00:00:00Z'), TODAY, LEADS));
    expect(subject).toBe('kelpkiln.com: deadlines ahead');
    expect(text).toContain('Last day before the next deadline: 3 Dec 2026, in 9 days.');
    expect(text).toContain(' $11.38 keeps it, about $125.18 after. The term ended 20 Oct 2026.');
  });

  test('the same instant is another day where the office is', () => {
    const row = rowOf('kelpkiln.com', '2026-10-20T03:00:00Z');
    const days = (zone: string) =>
      /deadline: (\d+ \w+ \d+), (in \d+ days)/.exec(digest(reminderFor(row, TODAY, LEADS), zone).text);
    expect(days('UTC')?.slice(1)).toEqual(['3 Dec 2026', 'in 9 days']);
    // Still the evening of the 3rd there: the 2nd is the last whole day; and it is still the 23rd of November.
    expect(days('America/Los_Angeles')?.slice(1)).toEqual(['2 Dec 2026', 'in 9 days']);
    expect(days('Pacific/Auckland')?.slice(1)).toEqual(['3 Dec 2026', 'in 9 days']);
  });

  test('a last day that is today or tomorrow is called so', () => {
    const row = rowOf('kelpkiln.com', '2026-10-20T00:00:00Z');
    const reminder = reminderFor(row, TODAY, LEADS);
    expect(digest(reminder, 'UTC', addDays(TODAY, 8)).text).toContain('3 Dec 2026, tomorrow.');
    expect(digest(reminder, 'UTC', addDays(TODAY, 9)).text).toContain('3 Dec 2026, today.');
  });

  test('a holder’s mail to confirm, before its day and after', () => {
    const row = rowOf('kelpkiln.com', '2027-10-20T00:00:00Z', { confirmMailBy: addDays(TODAY, 5) });
    expect(digest(mailReminderFor(row, TODAY, LEADS)).text).toContain('has to be confirmed by 28 Nov 2026');
    const late = addDays(TODAY, 5);
    expect(digest(mailReminderFor(row, late, LEADS), 'UTC', late).text).toContain('On hold');
    expect(mailReminderFor(row, addDays(TODAY, -60), LEADS)).toBeNull();
    const gone = rowOf('other.com', '2027-10-20T00:00:00Z', { confirmMailBy: addDays(TODAY, 5), purpose: 'drop' });
    expect(mailReminderFor(gone, TODAY, LEADS)).toBeNull();
  });

  test('names and links are escaped in HTML', () => {
    const row = rowOf('kelpkiln.com', '2026-10-20T00:00:00Z', { unicode: '<b>kelp&kiln</b>.com' });
    const { html } = digest(reminderFor(row, TODAY, LEADS));
    expect(html).not.toContain('<b>kelp');
    expect(html).toContain('&#60;b&#62;kelp&#38;kiln');
  });
});
