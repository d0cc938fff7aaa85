import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { isRefusal } from '@/core/refusal';
import { beginInvitedPasskey, comeInByPasskey, invite } from '@/usecases/people/invitations';
import { endMember, members } from '@/usecases/people/members';
import { beginSignIn, signInByPasskey } from '@/usecases/people/passkeys';
import { sessionsOf } from '@/usecases/people/sessions';
import { addOwnPasskey, beginOwnPasskey, ownWays, removeOwnPasskey } from '@/usecases/people/ways';
import { emptyLedger } from './ledger';
import { depsOf, FROM, type Inside, letIn, type TimedLedger, timed } from './people';
import { newKey, type SoftPasskey, softPasskey } from './softPasskey';
import { unrefused } from './unrefused';

const ORIGIN = FROM.origin;

let ledger: TimedLedger;
let owner: Inside;
let key: SoftPasskey;
beforeAll(async () => {
  ledger = timed(await emptyLedger());
  owner = await letIn(ledger, 'Ilsa Tarn', 'owner');
  key = await comeIn('Odo Quill');
});
afterAll(() => ledger.close());

/** Somebody comes in by a passkey. */
async function comeIn(name: string): Promise<SoftPasskey> {
  const { token } = unrefused(await invite(owner.deps, { name, role: 'trader' }));
  const begun = unrefused(await beginInvitedPasskey(ledger, FROM, token));
  const made = softPasskey();
  const response = made.create(begun.options.challenge, ORIGIN);
  unrefused(await comeInByPasskey(ledger, FROM, token, { token: begun.token, response }, 'A device'));
  return made;
}

const begin = async (from = FROM) => unrefused(await beginSignIn(ledger, from));

describe('signing in by passkey', () => {
  test('the right key over the right challenge at the right origin opens a session', async () => {
    const { options, token } = await begin();
    const done = await signInByPasskey(ledger, FROM, { token, response: key.get(options.challenge, ORIGIN) });
    expect(done).toMatchObject({ name: 'Odo Quill' });
  });

  test.each([
    ['another origin', () => ({ origin: 'http://localhost:4181' })],
    ['a site that looks like it', () => ({ origin: 'http://localhost.evil.test:4180' })],
    ['the same name over another scheme', () => ({ origin: 'https://localhost:4180' })],
    ['the key of somebody else', () => ({ by: newKey().privateKey })],
    ['another name for which it was made', () => ({ rpId: 'evil.test' })],
    ['nobody there who was verified', () => ({ isVerified: false })],
    ['a challenge of another day', () => ({ challenge: Buffer.alloc(32, 7).toString('base64url') })],
  ])('%s is refused', async (_, change) => {
    const { origin = ORIGIN, challenge, ...more } = change() as { origin?: string; challenge?: string };
    const { options, token } = await begin();
    const response = key.get(challenge ?? options.challenge, origin, more);
    expect(await signInByPasskey(ledger, FROM, { token, response })).toMatchObject({ code: 'sign-in-refused' });
  });

  test('an answer is good once: sent again it is refused, also in the same moment', async () => {
    const { options, token } = await begin();
    const response = key.get(options.challenge, ORIGIN);
    const both = await Promise.all([
      signInByPasskey(ledger, FROM, { token, response }),
      signInByPasskey(ledger, FROM, { token, response }),
    ]);
    expect(both.filter(isRefusal)).toHaveLength(1);
    expect(await signInByPasskey(ledger, FROM, { token, response })).toMatchObject({ code: 'sign-in-refused' });
  });

  test('a challenge is good for five minutes', async () => {
    const { options, token } = await begin();
    ledger.machine.now += 5 * 60_000;
    const response = key.get(options.challenge, ORIGIN);
    expect(await signInByPasskey(ledger, FROM, { token, response })).toMatchObject({ code: 'sign-in-refused' });
  });

  test('the challenge of making a passkey signs nobody in', async () => {
    const { token: invited } = unrefused(await invite(owner.deps, { name: 'Cross Over', role: 'viewer' }));
    const { options, token } = unrefused(await beginInvitedPasskey(ledger, FROM, invited));
    const response = key.get(options.challenge, ORIGIN);
    expect(await signInByPasskey(ledger, FROM, { token, response })).toMatchObject({ code: 'sign-in-refused' });
  });

  test('a key that counts must have counted on: a copy is noticed (WebAuthn section 6.1.1)', async () => {
    const counting = await comeIn('Kay Lorne');
    const signIn = async (counter: number) => {
      const { options, token } = await begin();
      return signInByPasskey(ledger, FROM, { token, response: counting.get(options.challenge, ORIGIN, { counter }) });
    };
    expect(await signIn(5)).toMatchObject({ name: 'Kay Lorne' });
    expect(await signIn(5)).toMatchObject({ code: 'sign-in-refused' });
    expect(await signIn(4)).toMatchObject({ code: 'sign-in-refused' });
    expect(await signIn(6)).toMatchObject({ name: 'Kay Lorne' });
  });

  test('the passkey of somebody whose access has ended opens nothing', async () => {
    const gone = await comeIn('Cal Dory');
    const id = (await members(ledger)).find(({ name }) => name === 'Cal Dory')?.id ?? 0;
    await endMember(owner.deps, id);
    const { options, token } = await begin();
    const response = gone.get(options.challenge, ORIGIN);
    expect(await signInByPasskey(ledger, FROM, { token, response })).toMatchObject({ code: 'sign-in-refused' });
  });

  test.each([{}, { token: 7 }, { token: 'x', response: {} }, { token: 'x', response: { id: ['a'] } }])(
    'what is no answer is refused: %j',
    async (answer) => {
      expect(await signInByPasskey(ledger, FROM, answer as never)).toMatchObject({ code: 'sign-in-refused' });
    },
  );
});

describe('making a passkey', () => {
  test.each([
    ['http://127.0.0.1:4180', false],
    ['http://[::1]:4180', false],
    ['http://names.example.test', false],
    ['http://localhost:4180', true],
    ['https://names.example.test', true],
    ['https://192.0.2.7', false],
  ])('at %s: %s', async (origin, may) => {
    const begun = await beginSignIn(ledger, { origin });
    expect(isRefusal(begun)).toBe(!may);
    if (isRefusal(begun)) expect(begun).toMatchObject({ code: 'passkey-address' });
  });

  test('wants the origin and challenge that were asked for', async () => {
    const { token: invited } = unrefused(await invite(owner.deps, { name: 'Wrong Place', role: 'viewer' }));
    for (const origin of ['http://localhost:4181', 'https://evil.test']) {
      const { options, token } = unrefused(await beginInvitedPasskey(ledger, FROM, invited));
      const response = softPasskey().create(options.challenge, origin);
      expect(await comeInByPasskey(ledger, FROM, invited, { token, response }, '')).toMatchObject({
        code: 'passkey-refused',
      });
    }
    // What was begun for somebody else is none of his.
    const { token: second } = unrefused(await invite(owner.deps, { name: 'Somebody Else', role: 'viewer' }));
    const { options, token } = unrefused(await beginInvitedPasskey(ledger, FROM, second));
    const response = softPasskey().create(options.challenge, ORIGIN);
    expect(await comeInByPasskey(ledger, FROM, invited, { token, response }, '')).toMatchObject({
      code: 'passkey-refused',
    });
  });

  test('one adds another of one’s own, and never takes away the last way to sign in', async () => {
    const { options, token } = await begin();
    const { token: session } = unrefused(
      await signInByPasskey(ledger, FROM, { token, response: key.get(options.challenge, ORIGIN) }),
    );
    const deps = await depsOf(ledger, session);
    const own = (await members(ledger)).find(({ name }) => name === 'Odo Quill')?.id ?? 0;
    const [at] = await sessionsOf(ledger, own);
    const from = { ...FROM, session: at ?? null };
    const [first] = (await ownWays(deps))?.passkeys ?? [];
    expect(await removeOwnPasskey(deps, from, first?.id ?? 0)).toMatchObject({ code: 'last-way' });
    const begun = unrefused(await beginOwnPasskey(deps, from));
    const response = softPasskey().create(begun.options.challenge, ORIGIN);
    expect(await addOwnPasskey(deps, from, { token: begun.token, response }, 'Second')).toBe(true);
    expect(await removeOwnPasskey(deps, from, first?.id ?? 0)).toBe(true);
    expect(await removeOwnPasskey(owner.deps, from, first?.id ?? 0)).toMatchObject({ code: 'not-found' });
    expect((await ownWays(deps))?.passkeys.map(({ label }) => label)).toEqual(['Second']);
  });
});
