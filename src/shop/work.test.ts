import { createHash, randomBytes } from 'node:crypto';
import { runInNewContext } from 'node:vm';
import { describe, expect, test } from 'vitest';
import { isStampGood, isWorkDone, stampAt, WORK_BITS, WORK_SCRIPT } from './work';

const KEY = randomBytes(32);
const NOW = Date.UTC(2026, 10, 28, 12);

describe('the stamp of a form', () => {
  const stamp = stampAt(KEY, NOW);
  test.each([
    ['is good from two seconds on', NOW + 2000, true],
    ['is not at once', NOW + 1999, false],
    ['is good for half a day', NOW + 12 * 3_600_000 - 1, true],
    ['and no longer', NOW + 12 * 3_600_000, false],
    ['is none before it was made', NOW - 1, false],
  ])('%s', (_, at, good) => {
    expect(isStampGood(KEY, stamp, at)).toBe(good);
  });

  test('cannot be made up, moved in time, or made with another key', () => {
    const [, mac] = stamp.split('.');
    for (const one of [
      `${(NOW - 60_000).toString(36)}.${mac}`,
      stampAt(randomBytes(32), NOW),
      '',
      '.',
      'x',
      'a'.repeat(500),
    ])
      expect(isStampGood(KEY, one, NOW + 60_000)).toBe(false);
  });
});

/** The page's script in a page that has a form and nothing else. Answers what it writes into the form. */
function workInPage(stamp: string, mail: string): Promise<string> {
  return new Promise((resolve) => {
    const proof = { value: '' };
    let submit: (event: object) => void = () => undefined;
    const form = {
      stamp: { value: stamp },
      mail: { value: mail },
      proof,
      addEventListener: (_: string, listener: typeof submit) => {
        submit = listener;
      },
      setAttribute: () => undefined,
      removeAttribute: () => undefined,
      requestSubmit: () => resolve(proof.value),
    };
    runInNewContext(WORK_SCRIPT, { document: { querySelector: () => form }, MessageChannel, Math, Int32Array, String });
    submit({ preventDefault: () => undefined, submitter: null });
  });
}

describe('the work', () => {
  /** Checked against Node's own SHA-256 (OpenSSL), for mails whose text ends before, at and behind a block of 64 octets. */
  test.each([
    'b.kelp@kelpworks.test',
    `${'a'.repeat(64 - 21)}@x.test`,
    `${'b'.repeat(120)}@long.test`,
    'MiXed@Case.TEST',
  ])(
    'that a page does for %s is the work that is asked for',
    async (mail) => {
      const stamp = stampAt(KEY, NOW);
      const proof = await workInPage(stamp, mail);
      expect(isWorkDone(stamp, mail, proof)).toBe(true);
      const begin = createHash('sha256').update(`${stamp}:${mail.toLowerCase()}`).digest('hex');
      const bits = createHash('sha256')
        .update(begin + proof)
        .digest();
      expect(bits[0]).toBe(0);
      expect(bits[1]).toBe(0);
      // For another address, or another page, it is worth nothing.
      expect(isWorkDone(stamp, `x${mail}`, proof)).toBe(false);
      expect(isWorkDone(stampAt(KEY, NOW + 1), mail, proof)).toBe(false);
    },
    60_000,
  );

  test('is some tens of thousands of hashes: a proof by chance is one in 2^bits', () => {
    const stamp = stampAt(KEY, NOW);
    let lucky = 0;
    for (let n = 0; n < 20_000; n += 1) if (isWorkDone(stamp, 'a@b.test', String(n))) lucky += 1;
    expect(WORK_BITS).toBe(16);
    // 0.3 on average; more than five has a chance of one in a million.
    expect(lucky).toBeLessThanOrEqual(5);
  });

  test.each(['', '-', '-1', '1e9', '0x10', ' 5', '99999999999'])('%j is no proof', (proof) => {
    expect(isWorkDone('s', 'a@b.test', proof)).toBe(false);
  });
});
