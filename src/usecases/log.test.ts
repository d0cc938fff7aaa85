import { expect, test } from 'vitest';
import { causeOf, handedOn, requestId, withinRequest } from './log';

test('an error is logged with what, where and why, and nothing that it carries besides', () => {
  const inner = Object.assign(new Error('connection refused'), { code: 'ECONNREFUSED', address: '192.0.2.1' });
  const error = Object.assign(new Error('no answer', { cause: inner }), {
    detail: 'Key (ascii)=(copperbuoy.com)',
    password: 'x',
  });
  const told = causeOf(error);
  expect(told).toMatchObject({
    type: 'Error',
    message: 'no answer',
    cause: { message: 'connection refused', code: 'ECONNREFUSED' },
  });
  expect(told.stack).toContain('log.test');
  expect(JSON.stringify(told)).not.toMatch(/copperbuoy|password|192\.0\.2\.1/);
});

test('causes are followed a few deep; what is no error is told as what it is', () => {
  let error = new Error('0');
  for (let depth = 1; depth < 20; depth += 1) error = new Error(String(depth), { cause: error });
  expect(JSON.stringify(causeOf(error)).match(/"message"/g)).toHaveLength(5);
  expect(causeOf('x'.repeat(9000))).toMatchObject({ type: 'string', message: 'x'.repeat(500) });
});

test('what is logged while a request is answered knows its number, also after a wait', async () => {
  expect(requestId()).toBeUndefined();
  const seen = await withinRequest({ requestId: 'r-1' }, async () => {
    await new Promise((soon) => setTimeout(soon, 1));
    return requestId();
  });
  expect([seen, requestId()]).toEqual(['r-1', undefined]);
});

test('whoever began a request hears that it is worked out elsewhere, and only of his own', async () => {
  const heard: string[] = [];
  const ask = (id: string, work: () => Promise<void>) =>
    withinRequest({ requestId: id, onHandedOn: () => heard.push(id) }, work);
  const soon = () => new Promise<void>((go) => setTimeout(go, 1));
  await Promise.all([ask('r-1', soon), ask('r-2', () => soon().then(handedOn))]);
  expect(heard).toEqual(['r-2']);
  // Jobs and tests ask for nothing over a request.
  handedOn();
  expect(heard).toEqual(['r-2']);
});
