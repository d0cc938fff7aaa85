import { type ChildProcess, spawn } from 'node:child_process';
import { afterEach, describe, expect, test } from 'vitest';
import { type Patience, type Supervised, supervise, together } from '../../bin/support/supervise';

const QUICK: Patience = { firstWaitMs: 20, mostWaitMs: 200, lookEveryMs: 50, looks: 2 };
const children: ChildProcess[] = [];
let running: Supervised | null = null;
afterEach(async () => {
  await running?.stop();
  running = null;
  for (const child of children.splice(0)) child.kill('SIGKILL');
});

/** A process that does nothing but live. */
function born(): ChildProcess {
  const child = spawn(process.execPath, ['-e', 'setInterval(() => undefined, 1000)'], { stdio: 'ignore' });
  children.push(child);
  return child;
}
const lives = (child: ChildProcess | undefined) => child?.exitCode === null && child.signalCode === null;

describe('a part that is kept running', () => {
  test('ended, it is started again, and it is said', async () => {
    const said: string[] = [];
    running = await supervise({ name: 'The part', start: async () => born() }, (text) => said.push(text), QUICK);
    children[0]?.kill('SIGKILL');
    await expect.poll(() => children.length).toBe(2);
    await expect
      .poll(() => said)
      .toEqual([
        expect.stringContaining('The part has ended (SIGKILL); it is started again in'),
        'The part runs again',
      ]);
  });

  test('made new, it is ended and started again at once, and counts as no failure', async () => {
    const said: string[] = [];
    const slow = { ...QUICK, firstWaitMs: 60_000, mostWaitMs: 120_000 };
    running = await supervise({ name: 'The part', start: async () => born() }, (text) => said.push(text), slow);
    running.renew();
    await expect.poll(() => children.length).toBe(2);
    expect(lives(children[0])).toBe(false);
    await expect.poll(() => said).toEqual(['The part is new; it is started again in 0 s', 'The part runs again']);
    running.renew();
    await expect.poll(() => children.length).toBe(3);
  });

  test('hanging, it is ended first', async () => {
    let isWell = true;
    const part = { name: 'The part', start: async () => born(), isWell: async () => isWell };
    running = await supervise(part, () => undefined, QUICK);
    isWell = false;
    await expect.poll(() => children.length, { timeout: 5000 }).toBeGreaterThan(1);
    isWell = true;
    await expect.poll(() => lives(children[0])).toBe(false);
  });

  test('a look that never answers is a look that failed; one missed look is none', async () => {
    let looks = 0;
    const part = {
      name: 'The part',
      start: async () => born(),
      isWell: () => {
        looks += 1;
        return looks % 2 === 0 ? Promise.resolve(true) : new Promise<boolean>(() => undefined);
      },
    };
    running = await supervise(part, () => undefined, QUICK);
    await expect.poll(() => looks, { timeout: 5000 }).toBeGreaterThan(5);
    expect(children).toHaveLength(1);
  });

  test('what cannot be started is tried again, with a longer wait each time', async () => {
    const waits: number[] = [];
    let starts = 0;
    const start = async () => {
      starts += 1;
      if (starts > 1 && starts < 5) throw new Error('no room');
      return born();
    };
    const hear = (text: string) => {
      const wait = /in ([\d.]+) s$/.exec(text)?.[1];
      if (wait) waits.push(Number(wait));
    };
    running = await supervise({ name: 'The part', start }, hear, QUICK);
    children[0]?.kill('SIGKILL');
    await expect.poll(() => starts, { timeout: 5000 }).toBe(5);
    expect(waits).toEqual([0.02, 0.04, 0.08, 0.16]);
  });

  test('told to stop in the midst of a start, it leaves nothing running', async () => {
    let letStart: () => void = () => undefined;
    let starts = 0;
    const start = async () => {
      starts += 1;
      if (starts > 1)
        await new Promise<void>((go) => {
          letStart = go;
        });
      return born();
    };
    const kept = await supervise({ name: 'The part', start }, () => undefined, QUICK);
    children[0]?.kill('SIGKILL');
    await expect.poll(() => starts).toBe(2);
    const stopped = kept.stop();
    letStart();
    await stopped;
    expect(children).toHaveLength(2);
    expect(children.map(lives)).toEqual([false, false]);
  });
});

test('what starts beside one that fails is waited for, so that it can be ended; then the failure is told', async () => {
  let isThere = false;
  const slow = new Promise<void>((go) => setTimeout(go, 40)).then(() => {
    isThere = true;
  });
  await expect(together([Promise.reject(new Error('the port is taken')), slow, null])).rejects.toThrow(
    'the port is taken',
  );
  expect(isThere).toBe(true);
  await expect(together([slow, null])).resolves.toBeUndefined();
});
