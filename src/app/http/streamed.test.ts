import { setTimeout as wait } from 'node:timers/promises';
import { afterEach, beforeEach, expect, test } from 'vitest';
import { streamed } from './streamed';

const uncaught: unknown[] = [];
const note = (cause: unknown) => void uncaught.push(cause);
beforeEach(() => {
  uncaught.length = 0;
  process.on('unhandledRejection', note);
  process.on('uncaughtException', note);
});
afterEach(() => {
  process.off('unhandledRejection', note);
  process.off('uncaughtException', note);
});

test('pieces go out in order, texts as UTF-8, each when it is read', async () => {
  let made = 0;
  async function* pieces() {
    for (const piece of ['möwe,', new Uint8Array([0x6b, 0x65]), 'lp']) {
      made += 1;
      yield piece;
    }
  }
  const response = new Response(streamed(pieces()));
  await wait(5);
  expect(made).toBeLessThan(3);
  expect(await response.text()).toBe('möwe,kelp');
});

test('whoever leaves, at whatever moment, ends the making of it, and nothing is thrown where nobody catches it', async () => {
  for (let leavesAfter = 0; leavesAfter < 12; leavesAfter += 1) {
    const state = { began: false, ended: false };
    async function* pieces() {
      state.began = true;
      try {
        for (let i = 0; i < 1000; i += 1) {
          if (i % 3 === 0) await wait(1);
          yield new Uint8Array(70_000);
        }
      } finally {
        state.ended = true;
      }
    }
    const reader = new Response(streamed(pieces())).body?.getReader();
    for (let i = 0; i < leavesAfter; i += 1) await reader?.read();
    // One piece is being waited for when he leaves.
    const last = reader?.read();
    await reader?.cancel();
    await last?.catch(() => undefined);
    // Who leaves before anything was asked for had nothing begun.
    await expect.poll(() => state.began === state.ended && (state.began || leavesAfter === 0)).toBe(true);
  }
  await wait(20);
  expect(uncaught).toEqual([]);
});

test('what fails in the middle breaks the body off', async () => {
  async function* pieces() {
    yield 'head';
    throw new Error('the database has gone');
  }
  await expect(new Response(streamed(pieces())).text()).rejects.toThrow();
  expect(uncaught).toEqual([]);
});
