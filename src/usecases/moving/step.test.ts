import { expect, test } from 'vitest';
import type { NameSettings, Outcome, RegistrarLink } from '@/connectors/registrar/port';
import { freshCode, setWithoutCode, unlessSet } from './step';

/** A link that remembers what it was asked to set, and answers in turn. */
function linkThat(...answers: readonly Outcome<true>[]) {
  const asked: NameSettings[] = [];
  const change: RegistrarLink['change'] = async (_name, settings) => {
    asked.push(settings);
    return answers[asked.length - 1] as Outcome<true>;
  };
  return { link: { change } as RegistrarLink, asked };
}
const done: Outcome<true> = { kind: 'done', value: true, svTRID: null };
const refused = (code: number): Outcome<true> => ({ kind: 'refused', code, reason: 'no' });

test('a code is unset; where a registrar takes no empty one, one that nobody knows takes its place', async () => {
  const plain = linkThat(done);
  expect(await setWithoutCode(plain.link, 'kelpkiln.com', { lock: true })).toEqual(done);
  expect(plain.asked).toEqual([{ lock: true, authInfo: null }]);

  const strict = linkThat(refused(2306), done);
  expect(await setWithoutCode(strict.link, 'kelpkiln.com', { lock: true })).toEqual(done);
  expect(strict.asked[1]).toMatchObject({ lock: true, authInfo: expect.stringMatching(/^[\w-]{24}$/) });
});

test.each([2201, 2303])('a name that is no longer ours (%i) is not asked about again', async (code) => {
  const { link, asked } = linkThat(refused(code));
  expect(await setWithoutCode(link, 'kelpkiln.com', {})).toEqual(refused(code));
  expect(asked).toHaveLength(1);
});

test('codes are of 144 bits, and no two are alike', () => {
  const codes = Array.from({ length: 1000 }, freshCode);
  expect(new Set(codes).size).toBe(1000);
  for (const code of codes) expect(Buffer.from(code, 'base64url')).toHaveLength(18);
});

test('what an answer means for a value that is set', () => {
  const on = () => ({ kind: 'on', to: 'unlocked' }) as const;
  expect(unlessSet(done, 1, on)).toEqual({ kind: 'on', to: 'unlocked' });
  expect(unlessSet({ kind: 'pending', svTRID: null }, 1, on)).toMatchObject({ kind: 'stays' });
  expect(unlessSet(refused(2304), 1, on)).toEqual({ kind: 'stays', problem: 'The registrar says: no.' });
  // Who did not answer is asked nothing more in this pass.
  expect(unlessSet({ kind: 'unknown', cause: 'no answer', sent: true }, 7, on)).toMatchObject({
    kind: 'stays',
    away: 7,
  });
});
