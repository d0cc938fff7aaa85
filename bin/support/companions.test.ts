import { type ChildProcess, spawn } from 'node:child_process';
import { setTimeout as wait } from 'node:timers/promises';
import { afterEach, expect, test } from 'vitest';
import { firstLine } from './companions';

const children: ChildProcess[] = [];
afterEach(() => {
  for (const child of children.splice(0)) child.kill('SIGKILL');
});
const born = (script: string): ChildProcess => {
  const child = spawn(process.execPath, ['-e', script], { stdio: ['ignore', 'pipe', 'ignore'] });
  children.push(child);
  return child;
};

test('a part that has said that it is ready is left alone, however long it runs', async () => {
  const child = born("console.log('ready'); setInterval(() => undefined, 1000)");
  expect(await firstLine(child, 'the part', 3000)).toBe('ready');
  await wait(3500);
  expect([child.exitCode, child.signalCode]).toEqual([null, null]);
}, 15_000);

test('a part that says nothing in time is ended', async () => {
  const child = born('setInterval(() => undefined, 1000)');
  await expect(firstLine(child, 'the part', 200)).rejects.toThrow('the part was not ready after 0.2 s');
  await expect.poll(() => child.signalCode).toBe('SIGTERM');
});

test('a part that ends before it is ready is said to have ended', async () => {
  await expect(firstLine(born('process.exit(3)'), 'the part', 3000)).rejects.toThrow('ended (3) before it was ready');
});
