import { afterEach, beforeEach, expect, test } from 'vitest';
import { addDays } from '@/core/time';
import { beginKeyed } from '@/database/keyedRequests';
import { forgetOldKeys, onceForKey } from '@/usecases/programs/keyed';
import { emptyLedger, type TestLedger } from './ledger';

let ledger: TestLedger;
beforeEach(async () => {
  ledger = await emptyLedger();
});
afterEach(() => ledger.close());

const counting = () => {
  const done = { times: 0 };
  const work = async () => {
    done.times += 1;
    return { status: 201, body: `answer ${done.times}` };
  };
  return { done, work };
};

test('a request is carried out once for its key, and answered the same again', async () => {
  const { done, work } = counting();
  for (let i = 0; i < 3; i += 1)
    expect(await onceForKey(ledger, 'key', 'POST /x {}', work)).toEqual({ status: 201, body: 'answer 1' });
  expect(done.times).toBe(1);
});

test('another request with the same key is refused, whatever the first came to', async () => {
  const { work } = counting();
  await onceForKey(ledger, 'key', 'POST /x {}', work);
  expect(await onceForKey(ledger, 'key', 'POST /y {}', work)).toMatchObject({ code: 'idempotency-key-reused' });
});

test('one whose process ended meanwhile is not carried out again: somebody has to look', async () => {
  const { done, work } = counting();
  const failing = onceForKey(ledger, 'key', 'POST /x {}', () => Promise.reject(new Error('the process was killed')));
  await expect(failing).rejects.toThrow('killed');
  expect(await onceForKey(ledger, 'key', 'POST /x {}', work)).toMatchObject({ code: 'request-under-way' });
  expect(done.times).toBe(0);
});

test('what was refused may be sent again with its key; what failed here may not', async () => {
  const { done, work } = counting();
  await onceForKey(ledger, 'refused', 'POST /x {}', async () => ({ status: 422, body: 'no' }));
  expect(await onceForKey(ledger, 'refused', 'POST /x {"mended":1}', work)).toMatchObject({ status: 201 });
  await onceForKey(ledger, 'failed', 'POST /x {}', async () => ({ status: 500, body: 'oh' }));
  expect(await onceForKey(ledger, 'failed', 'POST /x {}', work)).toMatchObject({ code: 'request-under-way' });
  expect(done.times).toBe(1);
});

test('an answer that is shown once is kept nowhere, and what it came of is not done twice', async () => {
  const { done, work } = counting();
  const secret = async () => ({ ...(await work()), body: 'whsec_shown-once', isSecret: true });
  expect(await onceForKey(ledger, 'key', 'POST /webhooks {}', secret)).toMatchObject({ body: 'whsec_shown-once' });
  expect(await onceForKey(ledger, 'key', 'POST /webhooks {}', secret)).toMatchObject({ code: 'request-under-way' });
  expect(done.times).toBe(1);
  const { rows } = await ledger.database.query('select * from keyed_requests');
  expect(JSON.stringify(rows)).not.toContain('whsec');
});

test('fifty at once with one key: one is carried out', async () => {
  const { done, work } = counting();
  const slow = async () => {
    await new Promise((go) => setTimeout(go, 100));
    return work();
  };
  const answers = await Promise.all(Array.from({ length: 50 }, () => onceForKey(ledger, 'key', 'POST /x {}', slow)));
  expect(done.times).toBe(1);
  // Who came while it was carried out hears so, who came after it the answer.
  for (const one of answers)
    expect(one).toMatchObject('status' in one ? { status: 201, body: 'answer 1' } : { code: 'request-under-way' });
});

test.each([
  ['', false],
  ['x'.repeat(201), false],
  ['a\nb', false],
  ['ключ', false],
  ['2026-11-24-1', true],
  ['with a space', true],
])('the key %j is one: %s', async (key, isOne) => {
  const { work } = counting();
  const answer = await onceForKey(ledger, key, 'POST /x {}', work);
  expect('status' in answer).toBe(isOne);
});

test('keys are forgotten after a week', async () => {
  const { done, work } = counting();
  await onceForKey(ledger, 'old', 'POST /x {}', work);
  ledger.setClock(addDays(ledger.clock(), 6));
  expect(await forgetOldKeys(ledger)).toBe(0);
  ledger.setClock(addDays(ledger.clock(), 2));
  expect(await forgetOldKeys(ledger)).toBe(1);
  expect(await beginKeyed(ledger.database, 'old', Buffer.alloc(32), ledger.clock())).toBeNull();
  expect(done.times).toBe(1);
});
