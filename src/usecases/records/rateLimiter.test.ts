import { describe, expect, test } from 'vitest';
import { RateLimiter } from './rateLimiter';

describe('the rateLimiter', () => {
  test('lets a few through at once to each host, whatever the crowd', async () => {
    const rateLimiter = new RateLimiter({ atOnce: 3, gapMs: 0 });
    let open = 0;
    let most = 0;
    const ask = async () => {
      open += 1;
      most = Math.max(most, open);
      await new Promise((done) => setTimeout(done, 5));
      open -= 1;
    };
    await Promise.all(Array.from({ length: 20 }, () => rateLimiter.through('one', ask)));
    expect(most).toBe(3);
  });

  test('keeps its distance between two questions, and stops when it is asked to', async () => {
    const rateLimiter = new RateLimiter({ atOnce: 10, gapMs: 20 });
    const at: number[] = [];
    const ask = async () => void at.push(performance.now());
    await Promise.all(Array.from({ length: 4 }, () => rateLimiter.through('one', ask)));
    const gaps = at.slice(1).map((time, i) => time - (at[i] ?? 0));
    expect(Math.min(...gaps)).toBeGreaterThan(10);
    rateLimiter.pause('one', 80);
    const before = performance.now();
    await rateLimiter.through('one', ask);
    expect(performance.now() - before).toBeGreaterThan(60);
  });

  test('what went late keeps its distance too, and a rest that is asked for meanwhile is kept', async () => {
    const rateLimiter = new RateLimiter({ atOnce: 10, gapMs: 30 });
    const at: number[] = [];
    const ask = async () => void at.push(performance.now());
    const all = Promise.all(Array.from({ length: 4 }, () => rateLimiter.through('one', ask)));
    await new Promise((done) => setTimeout(done, 5));
    // Nothing can be asked for a while: two turns come due meanwhile.
    for (const since = performance.now(); performance.now() - since < 80; );
    rateLimiter.pause('one', 40);
    const paused = performance.now();
    await all;
    expect((at[1] ?? 0) - paused).toBeGreaterThan(35);
    expect(Math.min(...at.slice(1).map((time, i) => time - (at[i] ?? 0)))).toBeGreaterThan(25);
  });

  test('one host’s rest is not another’s', async () => {
    const rateLimiter = new RateLimiter({ atOnce: 1, gapMs: 0 });
    await rateLimiter.through('one', async () => undefined);
    rateLimiter.pause('one', 5000);
    const before = performance.now();
    await rateLimiter.through('other', async () => undefined);
    expect(performance.now() - before).toBeLessThan(500);
  });

  test('a failed question lets the next one through', async () => {
    const rateLimiter = new RateLimiter({ atOnce: 1, gapMs: 0 });
    await expect(rateLimiter.through('one', () => Promise.reject(new Error('no')))).rejects.toThrow('no');
    expect(await rateLimiter.through('one', async () => 'yes')).toBe('yes');
  });

  test('a host that was silent is left alone for the rest of a pass, and asked again in the next', async () => {
    const rateLimiter = new RateLimiter({ atOnce: 1, gapMs: 0 });
    await rateLimiter.through('one', async () => undefined);
    for (let i = 0; i < 4; i += 1) rateLimiter.heard('one', false);
    expect([rateLimiter.isSilent('one'), rateLimiter.isSilent('two')]).toEqual([true, false]);
    rateLimiter.beginPass();
    expect(rateLimiter.isSilent('one')).toBe(false);
  });
});
