import { afterEach, beforeEach, describe, expect, test } from 'vitest';
import { isRefusal } from '@/core/refusal';
import { importAtOnce } from '@/usecases/imports/importAtOnce';
import { mail, mails, settleMail } from '@/usecases/mails/mails';
import { takeInMails, takeInPasted } from '@/usecases/mails/takeIn';
import { foreignTransfers } from '@/usecases/moving/foreign';
import { nameDetail } from '@/usecases/names/detail';
import { backupText, restoreText } from './backups';
import { emptyLedger, type TestLedger } from './ledger';
import { must } from './marketplace';

let ledger: TestLedger;
beforeEach(async () => {
  ledger = await emptyLedger();
  await importAtOnce(ledger, {
    content: Buffer.from(
      'name,account,expires,auto-renew\nkelpkiln.com,Quaymark,2026-12-06,off\nquaybarrow.com,Quaymark,2027-01-04,on\ntidewick.net,Wrackgate,2027-02-11,on\n',
    ),
    account: null,
    dateOrder: null,
    fullList: false,
    allowPrivateEndings: false,
    dryRun: false,
  });
});
afterEach(() => ledger.close());

const eml = (subject: string, body: string, from = 'service@quaymark.test', more = '') =>
  Buffer.from(
    `Message-ID: <${subject}-${body.length}@x.test>\r\nFrom: Quaymark <${from}>\r\nDate: Mon, 23 Nov 2026 10:00:00 +0000\r\n${more}Subject: ${subject}\r\n\r\n${body.replaceAll('\n', '\r\n')}`,
  );
const bring = async (content: Buffer) => must(await takeInMails(ledger, content, 'dropped'));
const id = async (name: string) =>
  (await ledger.database.query('select id from names where ascii = $1', [name])).rows[0].id as number;
const row = async (name: string, columns: string) =>
  (await ledger.database.query(`select ${columns} from names where ascii = $1`, [name])).rows[0];
const written = async () => (await ledger.database.query('select count(*)::int as n from changes')).rows[0].n as number;
const RENEWED = eml('kelpkiln.com has been renewed', 'New term ends: 2027-12-06\nCharged: USD 11.38');

describe('a mail is evidence', () => {
  test('taking it in changes nothing of a name; taken over, it does, with the mail as evidence', async () => {
    const before = await written();
    const { ids, open } = await bring(RENEWED);
    expect([ids.length, open, await written()]).toEqual([1, 1, before]);
    const mailId = ids[0] as number;
    const found = await mail(ledger, mailId);
    expect(found).toMatchObject({ kind: 'renewed', account: 'Quaymark', isSure: true });
    expect([...(found?.proposals.values() ?? [])]).toMatchObject([
      { what: 'term end', charged: { minor: 1138, currency: 'USD' } },
    ]);
    expect(await settleMail(ledger, { mailId, nameIds: [await id('kelpkiln.com')], as: 'take over' })).toBe(1);
    expect(await row('kelpkiln.com', 'term_end::date::text as "end"')).toEqual({ end: '2027-12-06' });
    const detail = must(await nameDetail(ledger, 'kelpkiln.com'));
    expect(detail.history[0]?.evidence ?? detail.history[1]?.evidence).toContain(
      'mail of 2026-11-23 from service@quaymark.test: kelpkiln.com has been renewed',
    );
    expect(detail.entries).toMatchObject([{ kind: 'renewal', minor: 1138, currency: 'USD' }]);
    // Its history knows which mail it was.
    const [speaking] = await mails(ledger, { nameId: detail.id, limit: 5 });
    expect(detail.history.map(({ batchId }) => batchId)).toContain(speaking?.names[0]?.batchId);
    expect(await settleMail(ledger, { mailId, nameIds: [detail.id], as: 'take over' })).toMatchObject({
      code: 'nothing-open',
    });
  });

  test('two take it over at once: one does', async () => {
    const { ids } = await bring(RENEWED);
    const settle = async () =>
      settleMail(ledger, { mailId: ids[0], nameIds: [await id('kelpkiln.com')], as: 'take over' });
    const answers = await Promise.all([settle(), settle(), settle()]);
    expect(answers.filter((one) => one === 1)).toHaveLength(1);
    const { entries } = must(await nameDetail(ledger, 'kelpkiln.com'));
    expect(entries).toHaveLength(1);
  });

  test('the same mail comes twice, by another way: it is here already', async () => {
    await bring(RENEWED);
    expect(await bring(RENEWED)).toMatchObject({ ids: [], known: 1 });
    expect(must(await takeInPasted(ledger, RENEWED.toString('utf8')))).toMatchObject({ ids: [], known: 1 });
  });

  test('a failed charge, a renewal ahead, an address to confirm', async () => {
    const failed = await bring(eml('Payment failed', 'Your card was declined for quaybarrow.com'));
    await settleMail(ledger, { mailId: failed.ids[0], nameIds: [await id('quaybarrow.com')], as: 'take over' });
    expect(await row('quaybarrow.com', 'setting')).toEqual({ setting: 'stalled' });
    const ahead = await bring(eml('Renewal reminder', 'kelpkiln.com will be renewed on 2026-12-01'));
    await settleMail(ledger, { mailId: ahead.ids[0], nameIds: [await id('kelpkiln.com')], as: 'take over' });
    expect(await row('kelpkiln.com', 'setting')).toEqual({ setting: 'on' });
    const confirm = await bring(eml('Please confirm your email address', 'for kelpkiln.com until 2026-12-09'));
    await settleMail(ledger, { mailId: confirm.ids[0], nameIds: [await id('kelpkiln.com')], as: 'take over' });
    expect(await row('kelpkiln.com', 'confirm_mail_by is not null as asked')).toEqual({ asked: true });
  });

  test('what is left stays as it is, and waits no more', async () => {
    const { ids } = await bring(RENEWED);
    expect(await mails(ledger, { open: true, limit: 5 })).toHaveLength(1);
    await settleMail(ledger, { mailId: ids[0], nameIds: [await id('kelpkiln.com')], as: 'leave' });
    expect(await mails(ledger, { open: true, limit: 5 })).toEqual([]);
    expect(await row('kelpkiln.com', 'term_end::date::text as "end"')).toEqual({ end: '2026-12-06' });
  });

  test('a transfer that nobody asked for is an alarm at once; a stranger’s word is none', async () => {
    await bring(eml('Transfer request', 'for kelpkiln.com. Reject it by 2026-11-29', 'x@quaymark.elsewhere.test'));
    expect(await foreignTransfers(ledger)).toEqual([]);
    await bring(eml('Transfer request for kelpkiln.com', 'Reject it by 2026-11-29'));
    expect(await foreignTransfers(ledger)).toMatchObject([{ ascii: 'kelpkiln.com', seenBy: 'mail', state: 'open' }]);
  });

  test('nothing is proposed of a name elsewhere, of an end that is known, of one that would be sooner', async () => {
    for (const body of [
      'tidewick.net has been renewed until 2029-02-11',
      'kelpkiln.com has been renewed until 2026-12-06',
      'quaybarrow.com has been renewed until 2026-01-04',
    ])
      expect(await bring(eml('Renewal confirmation', body))).toMatchObject({ open: 0 });
  });

  test('found by what stands in it, and by its name', async () => {
    await bring(RENEWED);
    await bring(eml('Summer offers', 'A new ending: .boat'));
    const subjects = async (wanted: object) =>
      (await mails(ledger, { limit: 9, ...wanted })).map(({ subject }) => subject);
    expect(await subjects({ text: 'BOAT' })).toEqual(['Summer offers']);
    expect(await subjects({ text: "' or 1=1 --" })).toEqual([]);
    expect(await subjects({ nameId: await id('kelpkiln.com') })).toEqual(['kelpkiln.com has been renewed']);
  });

  test('a mailbox of many, some of them broken', async () => {
    const box = Buffer.concat([
      Buffer.from('From a@b.test Tue Nov 24 09:12:00 2026\n'),
      RENEWED,
      Buffer.from(
        '\n\nFrom a@b.test Tue Nov 24 09:12:00 2026\nno header here\n\nFrom a@b.test Tue Nov 24 09:13:00 2026\n',
      ),
      eml('Payment failed', 'card was declined for quaybarrow.com'),
    ]);
    expect(await bring(box)).toMatchObject({ refused: 1, open: 2 });
    expect(await takeInMails(ledger, Buffer.from('nothing'), 'dropped')).toMatchObject({ code: 'mail-not-read' });
    expect(await takeInPasted(ledger, '  ')).toMatchObject({ code: 'mail-empty' });
  });

  test('a mailbox of too many is refused whole: nothing is left out in silence', async () => {
    const one = 'From a@b.test Tue Nov 24 09:12:00 2026\nSubject: x\n\ny\n\n';
    expect(await takeInMails(ledger, Buffer.from(one.repeat(1001)), 'dropped')).toMatchObject({
      code: 'mails-too-many',
    });
    expect(await mails(ledger, { limit: 5 })).toEqual([]);
  });

  test('pasted without its sender, a text of names of one account is believed by who pastes it', async () => {
    expect(must(await takeInPasted(ledger, 'kelpkiln.com has been renewed\nuntil 2027-12-06'))).toMatchObject({
      open: 1,
    });
  });

  test('a backup holds the mails, and what became of them', async () => {
    const { ids } = await bring(RENEWED);
    await settleMail(ledger, { mailId: ids[0], nameIds: [await id('kelpkiln.com')], as: 'take over' });
    const other = await emptyLedger();
    const restored = await restoreText(other, await backupText(ledger));
    expect(isRefusal(restored)).toBe(false);
    expect(await mails(other, { limit: 5 })).toEqual(await mails(ledger, { limit: 5 }));
    await other.close();
  });
});
