import { setImmediate } from 'node:timers/promises';
import { Worker } from 'node:worker_threads';
import { afterEach, beforeEach, expect, test, vi } from 'vitest';
import { BeingAnswered, goOnAmong } from './beingAnswered';

beforeEach(() => {
  vi.useFakeTimers({ toFake: ['setTimeout', 'clearTimeout'] });
});
afterEach(() => {
  vi.useRealTimers();
});

test('somebody is being answered until each of them has been', () => {
  const others = new BeingAnswered();
  expect(others.some).toBe(false);
  const [first, second] = [others.begin(), others.begin()];
  first();
  expect(others.some).toBe(true);
  second();
  expect(others.some).toBe(false);
});

test('an answer that ends twice ends one', () => {
  const others = new BeingAnswered();
  const [first] = [others.begin(), others.begin()];
  first();
  first();
  expect(others.some).toBe(true);
});

test('who waits for something else than this machine is not waited for after two seconds', () => {
  const others = new BeingAnswered();
  const end = others.begin();
  vi.advanceTimersByTime(1999);
  expect(others.some).toBe(true);
  vi.advanceTimersByTime(1);
  expect(others.some).toBe(false);
  // Its end comes after all, and takes nobody else away.
  others.begin();
  end();
  expect(others.some).toBe(true);
});

test('a thread sees who is being answered in another', async () => {
  const others = new BeingAnswered();
  others.begin();
  const thread = new Worker(
    "const { parentPort, workerData } = require('node:worker_threads'); parentPort.postMessage(Atomics.load(workerData, 0))",
    { eval: true, workerData: others.memory },
  );
  expect(await new Promise((told) => thread.once('message', told))).toBe(1);
  expect(new BeingAnswered(others.memory).some).toBe(true);
  await thread.terminate();
});

test.each([
  { who: 'nobody has been told of', others: () => undefined, goesOnAtOnce: true },
  { who: 'nobody is being answered', others: () => new BeingAnswered(), goesOnAtOnce: true },
  { who: 'somebody is being answered', others: answering, goesOnAtOnce: false },
])('where $who, long work goes on at once: $goesOnAtOnce', async ({ others, goesOnAtOnce }) => {
  vi.useRealTimers();
  const goesOn = goOnAmong(others()).then(() => true);
  // Three looks take more turns of the event loop than these two.
  const later = setImmediate(false).then((passed) => setImmediate(passed));
  expect(await Promise.race([goesOn, later])).toBe(goesOnAtOnce);
});

test('long work goes on as soon as the last has been answered, and in the end whoever is being answered', async () => {
  vi.useRealTimers();
  const others = new BeingAnswered();
  const end = others.begin();
  const goingOn = goOnAmong(others);
  end();
  await goingOn;
  others.begin();
  await goOnAmong(others);
  expect(others.some).toBe(true);
});

function answering(): BeingAnswered {
  const others = new BeingAnswered();
  others.begin();
  return others;
}
