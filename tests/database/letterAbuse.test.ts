import { describe, expect, test } from 'vitest';
import { HOUR_MS, type Instant, MINUTE_MS } from '@/core/time';
import { blockSender } from '@/usecases/shop/settings';
import { buyersDesk } from './buyers';
import { must } from './marketplace';

const buyers = buyersDesk();
const { desk, mails, mailed, linkIn, stampOf, send, sendAndConfirm, act, see, threads } = buyers;

describe('abuse', () => {
  test('an address that confirms nothing is mailed once, however often it is written', async () => {
    const answers = [];
    for (let n = 0; n < 3; n += 1) answers.push(await send({ mail: 'victim@elsewhere.test', amount: String(400 + n) }));
    for (let n = 0; n < 3; n += 1) await mailed();
    expect(mails().filter(({ to }) => to === 'victim@elsewhere.test')).toHaveLength(1);
    expect(answers.map(({ status }) => status)).toEqual([303, 422, 422]);
  });

  test('nor once more for each address that one mailbox may be written to by', async () => {
    for (const mail of ['victim@elsewhere.test', 'Victim+1@elsewhere.test', 'victim+2@ELSEWHERE.test'])
      await send({ mail });
    await mailed();
    expect(mails()).toHaveLength(1);
  });

  test('also where its mail server was in doubt, or another process tells at the same time', async () => {
    await send();
    expect((await Promise.all([mailed(), mailed(), mailed()])).reduce((a, b) => a + b)).toBe(1);
    expect(mails()).toHaveLength(1);
  });

  test('what a machine fills, or sends at once, is thrown away', async () => {
    expect((await send({ website: 'https://spam.test' })).status).toBe(303);
    const now = await stampOf(Date.now());
    for (const stamp of [now, '', 'k3.forged', `${'9'.repeat(40)}.x`])
      expect((await send({ stamp })).body).toContain('That could not be taken.');
    expect((await desk.made.ledger.database.query('select * from letters')).rows).toEqual([]);
  });

  test('who is blocked is told nothing, and nothing of his is kept', async () => {
    must(await blockSender(desk.made.ledger, { sender: '@Kelpworks.test' }));
    expect((await send()).status).toBe(303);
    expect(await mailed()).toBe(0);
    expect((await desk.made.ledger.database.query('select * from letters')).rows).toEqual([]);
  });

  test.each(['b.kelp+2@kelpworks.test', 'B.KELP@KELPWORKS.TEST', '"a@b"@kelpworks.test'])(
    'nor by another way to write to his mailbox, or to his host: %s',
    async (mail) => {
      must(
        await blockSender(desk.made.ledger, {
          sender: mail.startsWith('"') ? '@kelpworks.test' : 'b.kelp+1@KelpWorks.test',
        }),
      );
      expect((await send({ mail })).status).toBe(303);
      expect((await desk.made.ledger.database.query('select * from letters')).rows).toEqual([]);
    },
  );

  test('who is blocked later is not heard at his own page either', async () => {
    const link = await sendAndConfirm();
    must(await blockSender(desk.made.ledger, { sender: 'b.kelp@kelpworks.test' }));
    expect((await act(link, { act: 'counter', amount: '500' })).status).toBe(303);
    expect((await threads())[0]?.figures).toHaveLength(1);
  });

  test('one buyer says so much an hour at his own page, and no more', async () => {
    const link = await sendAndConfirm();
    const statuses = [];
    for (let n = 0; n < 31; n += 1)
      statuses.push((await act(link, { act: 'counter', amount: String(401 + n) })).status);
    // The confirmation was the first of thirty.
    expect(statuses.filter((status) => status === 303)).toHaveLength(29);
    expect((await threads())[0]?.figures).toHaveLength(30);
  });

  test('a message longer than what is kept is cut between characters', async () => {
    await sendAndConfirm({ message: `${'⚓'.repeat(399)}🌊🌊🌊` });
    const note = (await threads())[0]?.figures[0]?.note ?? '';
    expect([...note]).toHaveLength(400);
    expect(note.endsWith('🌊')).toBe(true);
  });

  test('without a proof of work two an hour are taken from an address, by whatever name', async () => {
    const answers = [];
    for (let n = 0; n < 4; n += 1) answers.push(await send({ mail: `m${n}@kelpworks.test`, address: '198.51.100.7' }));
    expect(answers.map(({ status }) => status)).toEqual([303, 303, 429, 429]);
  });

  test('links are not guessed: who tries many is stopped', async () => {
    const statuses = [];
    for (let n = 0; n < 62; n += 1)
      statuses.push(
        (
          await buyers.shop.answer({
            method: 'GET',
            url: `/t/${'x'.repeat(41)}${String(n).padStart(2, '0')}`,
            host: '',
            acceptLanguage: 'en',
            address: '203.0.113.9',
          })
        ).status,
      );
    expect(statuses.slice(0, 60).every((status) => status === 404)).toBe(true);
    expect(statuses.at(-1)).toBe(429);
  });

  test('what a buyer writes is text, in the office and at his page', async () => {
    const evil = '<script>alert(1)</script>';
    await send({ message: evil, buyer: 'Ann & Co' });
    await mailed();
    const link = linkIn(mails().at(-1)?.text);
    expect(await see(link)).not.toContain(evil);
    await act(link, { act: 'confirm' });
    expect((await threads())[0]?.figures[0]?.note).toBe(evil);
  });
});

test('a mail server that refuses is asked again after growing pauses, and no more after twelve', async () => {
  const { ledger, practice } = desk.made;
  const mailAt = (port: number) =>
    ledger.database.query(
      "update settings set value = jsonb_set(value, '{port}', to_jsonb($1::int)) where key = 'mail'",
      [port],
    );
  const tries = async () =>
    (await ledger.database.query<{ n: number }>('select mail_tries as n from letters')).rows[0]?.n;
  const pass = (ms: number) => ledger.setClock((ledger.clock() + ms) as Instant);
  await send();
  await mailAt(1);
  for (let n = 0; n < 5; n += 1) await mailed();
  expect(await tries()).toBe(1);
  pass(MINUTE_MS);
  await mailed();
  await mailed();
  expect(await tries()).toBe(2);
  pass(MINUTE_MS);
  await mailed();
  expect(await tries()).toBe(2);
  await mailAt(practice.mailPort);
  pass(MINUTE_MS);
  expect(await mailed()).toBe(1);
  expect(await tries()).toBe(0);
  await send({ mail: 'other@kelpworks.test' });
  await mailAt(1);
  for (let n = 0; n < 20; n += 1) {
    await mailed();
    pass(6 * HOUR_MS);
  }
  const { rows } = await ledger.database.query("select mail_tries as n, over from letters where mail like 'other%'");
  expect(rows).toEqual([{ n: 12, over: true }]);
});
