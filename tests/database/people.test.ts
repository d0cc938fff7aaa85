import { generate } from 'otplib';
import { afterAll, beforeAll, describe, expect, test, vi } from 'vitest';
import { SESSION } from '@/core/people';
import { isRefusal } from '@/core/refusal';
import { emptyLedger as emptyTheLedger } from '@/usecases/ledgers/empty';
import { editNames } from '@/usecases/names/edit';
import { MOST_ATTEMPTS } from '@/usecases/people/attempts';
import { identify } from '@/usecases/people/identify';
import { comeInByPassPhrase, enrolInvited, invite, inviteAgain, invited } from '@/usecases/people/invitations';
import { addProgram, changeMember, endMember, members } from '@/usecases/people/members';
import { endOwnSessions, endSessionsOf, sessionsOf } from '@/usecases/people/sessions';
import { signInByPassPhrase, signInByRecoveryCode } from '@/usecases/people/signIn';
import { removeOwnPasskey, setOwnPassPhrase } from '@/usecases/people/ways';
import { sealAnew } from '@/usecases/secrets/keys';
import { keyFrom, type SealKey } from '@/usecases/secrets/seal';
import { backupText, restoreText } from './backups';
import { emptyLedger } from './ledger';
import { comeInBy, depsOf, FROM, type Inside, letIn, PHRASE, type TimedLedger, timed } from './people';
import { unrefused } from './unrefused';

const MINUTE_MS = 60_000;

let ledger: TimedLedger;
let owner: Inside;
beforeAll(async () => {
  ledger = timed(await emptyLedger());
  owner = await letIn(ledger, 'Ilsa Tarn', 'owner');
});
afterAll(() => ledger.close());

const codeOf = (secret: string) => generate({ secret, epoch: Math.floor(ledger.machine.now / 1000) });
const pass = (ms: number) => {
  ledger.machine.now += ms;
};
const whoBy = async (session: string) => unrefused(await identify(ledger, { session, bearer: null })).who;
const idOf = async (name: string) => (await members(ledger)).find((one) => one.name === name)?.id as number;

describe('the first owner', () => {
  test('must be an owner; until he has come in the ledger is open to whoever sits there', async () => {
    const other = timed(await emptyLedger());
    expect((await identify(other, { session: null, bearer: null })) as object).toMatchObject({
      who: { kind: 'office' },
    });
    expect(await invite(other, { name: 'Odo', role: 'viewer' })).toMatchObject({ code: 'owner-first', field: 'role' });
    await invite(other, { name: 'Odo', role: 'owner' });
    expect((await identify(other, { session: null, bearer: null })) as object).toMatchObject({
      who: { kind: 'office' },
    });
    await other.close();
  });

  test('is not ended nor made less while he is the last who can sign in', async () => {
    const id = await idOf('Ilsa Tarn');
    expect(await endMember(owner.deps, id)).toMatchObject({ code: 'last-owner' });
    expect(await changeMember(owner.deps, id, { role: 'viewer' })).toMatchObject({ code: 'last-owner' });
    // Somebody who was invited and has not come in cannot take his place.
    await invite(owner.deps, { name: 'Not Yet', role: 'owner' });
    expect(await changeMember(owner.deps, id, { role: 'viewer' })).toMatchObject({ code: 'last-owner' });
  });
});

describe('an invitation', () => {
  test('is taken up once, by one of two who try in the same moment', async () => {
    const { token } = unrefused(await invite(owner.deps, { name: 'Two At Once', role: 'viewer' }));
    const { secret, sealed } = unrefused(await enrolInvited(ledger, token));
    const form = { passPhrase: PHRASE, code: await codeOf(secret), enrolment: sealed };
    const both = await Promise.all([
      comeInByPassPhrase(ledger, FROM, token, form),
      comeInByPassPhrase(ledger, FROM, token, form),
    ]);
    expect(both.filter(isRefusal)).toHaveLength(1);
    expect(await invited(ledger, token)).toMatchObject({ code: 'invitation-invalid' });
  });

  test('ends after seven days, and with the next one', async () => {
    const first = unrefused(await invite(owner.deps, { name: 'Late Comer', role: 'viewer' }));
    const second = unrefused(await inviteAgain(owner.deps, first.id));
    expect(await invited(ledger, first.token)).toMatchObject({ code: 'invitation-invalid' });
    pass(7 * 24 * 60 * MINUTE_MS - 1);
    expect(await invited(ledger, second.token)).toMatchObject({ name: 'Late Comer' });
    pass(1);
    expect(await invited(ledger, second.token)).toMatchObject({ code: 'invitation-invalid' });
    owner = { ...owner, ...unrefused(await signInAgain(owner, 'Ilsa Tarn')) };
    owner = { ...owner, deps: await depsOf(ledger, owner.token) };
  });

  test('taken up by somebody who had come in before, ends what he had open', async () => {
    const before = await letIn(ledger, 'Lost Everything', 'viewer', owner.deps);
    const { token } = unrefused(await inviteAgain(owner.deps, await idOf('Lost Everything')));
    expect(await whoBy(before.token)).toMatchObject({ name: 'Lost Everything' });
    const after = await comeInBy(ledger, token);
    expect(await whoBy(before.token)).toEqual({ kind: 'stranger' });
    expect(await whoBy(after.token)).toMatchObject({ name: 'Lost Everything' });
  });

  test('names stand in the history: none is given twice, however it is written', async () => {
    expect(await invite(owner.deps, { name: 'ILSA TARN', role: 'viewer' })).toMatchObject({
      code: 'person-name-taken',
      field: 'name',
    });
  });

  test.each([
    ['kelp', 'pass-phrase-short'],
    ['aaaaaaaaaaaaaaaa', 'pass-phrase-guessable'],
    ['password1234', 'pass-phrase-guessable'],
    ['k'.repeat(129), 'pass-phrase-long'],
  ])('the pass phrase %s is refused: %s', async (passPhrase, code) => {
    const name = `Guess Me ${code} ${passPhrase.length}`;
    const { token } = unrefused(await invite(owner.deps, { name, role: 'viewer' }));
    const { secret, sealed } = unrefused(await enrolInvited(ledger, token));
    const form = { passPhrase, code: await codeOf(secret), enrolment: sealed };
    expect(await comeInByPassPhrase(ledger, FROM, token, form)).toMatchObject({ code, field: 'passPhrase' });
  });

  test('a picture of somebody else’s is not taken', async () => {
    const one = unrefused(await invite(owner.deps, { name: 'Picture One', role: 'viewer' }));
    const two = unrefused(await invite(owner.deps, { name: 'Picture Two', role: 'viewer' }));
    const { secret, sealed } = unrefused(await enrolInvited(ledger, one.token));
    const form = { passPhrase: PHRASE, code: await codeOf(secret), enrolment: sealed };
    expect(await comeInByPassPhrase(ledger, FROM, two.token, form)).toMatchObject({ code: 'enrolment-unknown' });
  });
});

const signInAgain = async ({ secret }: Inside, name: string) => {
  pass(MINUTE_MS);
  return signInByPassPhrase(ledger, FROM, { name, passPhrase: PHRASE, code: await codeOf(secret) });
};

describe('signing in', () => {
  test('wants the pass phrase and a code, and tells nobody which was wrong', async () => {
    pass(MINUTE_MS);
    const code = await codeOf(owner.secret);
    const right = { name: 'Ilsa Tarn', passPhrase: PHRASE, code };
    const answers = [
      await signInByPassPhrase(ledger, FROM, { ...right, passPhrase: 'another lantern drifts far' }),
      await signInByPassPhrase(ledger, FROM, { ...right, code: '000000' }),
      await signInByPassPhrase(ledger, FROM, { ...right, name: 'Nobody Here' }),
    ];
    expect(new Set(answers.map((answer) => JSON.stringify(answer))).size).toBe(1);
    expect(answers[0]).toMatchObject({ code: 'sign-in-refused' });
    // What was refused has used nothing up.
    expect(await signInByPassPhrase(ledger, FROM, right)).toMatchObject({ name: 'Ilsa Tarn' });
  });

  test('a code is good once, also for two who send it in the same moment', async () => {
    pass(MINUTE_MS);
    const form = { name: 'Ilsa Tarn', passPhrase: PHRASE, code: await codeOf(owner.secret) };
    const both = await Promise.all([signInByPassPhrase(ledger, FROM, form), signInByPassPhrase(ledger, FROM, form)]);
    expect(both.filter(isRefusal)).toHaveLength(1);
    expect(await signInByPassPhrase(ledger, FROM, form)).toMatchObject({ code: 'sign-in-refused' });
  });

  test('a recovery code is good once, however it is typed', async () => {
    const [code = ''] = owner.recoveryCodes;
    const form = { name: 'ilsa tarn', recoveryCode: ` ${code.toUpperCase().replaceAll('-', ' ')}` };
    expect(await signInByRecoveryCode(ledger, FROM, form)).toMatchObject({ name: 'Ilsa Tarn' });
    expect(await signInByRecoveryCode(ledger, FROM, form)).toMatchObject({ code: 'sign-in-refused' });
    expect(await signInByRecoveryCode(ledger, FROM, { ...form, name: 'Two At Once' })).toMatchObject({
      code: 'sign-in-refused',
    });
  });

  test('one account is tried ten times in a quarter of an hour, from wherever', async () => {
    const odo = await letIn(ledger, 'Odo Quill', 'trader', owner.deps);
    for (let i = 0; i < MOST_ATTEMPTS.account; i += 1)
      await signInByPassPhrase(
        ledger,
        { ...FROM, address: `198.51.100.${i}` },
        { name: 'odo quill', passPhrase: 'x', code: '000000' },
      );
    expect(await signInAgain(odo, 'Odo Quill')).toMatchObject({ code: 'attempts-too-many' });
    // Others are not kept out by it.
    expect(await signInAgain(owner, 'Ilsa Tarn')).toMatchObject({ name: 'Ilsa Tarn' });
  });

  test('however often it is tried, what is over is cleared away by one timer for each kind', async () => {
    const timers = vi.spyOn(globalThis, 'setTimeout');
    for (let i = 0; i < 5; i += 1)
      await signInByRecoveryCode(ledger, { ...FROM, address: '203.0.113.8' }, { name: 'nobody', recoveryCode: 'x' });
    expect(timers.mock.calls.filter(([, ms]) => ms === 300_000)).toEqual([]);
    timers.mockRestore();
  });

  test('one address tries fifty times, whomever it tries', async () => {
    const from = { ...FROM, address: '203.0.113.9' };
    let last: unknown = null;
    for (let i = 0; i <= MOST_ATTEMPTS.address; i += 1)
      last = await signInByRecoveryCode(ledger, from, { name: `nobody ${i}`, recoveryCode: 'x' });
    expect(last).toMatchObject({ code: 'attempts-too-many' });
  });
});

test('after a change of the key codes fit as before', async () => {
  const next = keyFrom('another key') as SealKey;
  expect(await sealAnew(ledger, ledger.key as SealKey, next)).toMatchObject({ left: [] });
  pass(MINUTE_MS);
  const form = { name: 'Ilsa Tarn', passPhrase: PHRASE, code: await codeOf(owner.secret) };
  expect(await signInByPassPhrase({ ...ledger, key: next }, FROM, form)).toMatchObject({ name: 'Ilsa Tarn' });
  expect(await sealAnew(ledger, next, ledger.key as SealKey)).toMatchObject({ left: [] });
});

describe('a session', () => {
  test('ends when it is not used, and is kept by being used', async () => {
    const { token } = unrefused(await signInAgain(owner, 'Ilsa Tarn'));
    pass(SESSION.idleMs - 1);
    expect(await whoBy(token)).toMatchObject({ name: 'Ilsa Tarn' });
    pass(SESSION.idleMs - 1);
    expect(await whoBy(token)).toMatchObject({ name: 'Ilsa Tarn' });
    pass(SESSION.idleMs);
    expect(await whoBy(token)).toEqual({ kind: 'stranger' });
    owner = { ...owner, ...unrefused(await signInAgain(owner, 'Ilsa Tarn')) };
    owner = { ...owner, deps: await depsOf(ledger, owner.token) };
  });

  test('is one’s own to end; somebody else’s is not', async () => {
    const una = await letIn(ledger, 'Una Fell', 'viewer', owner.deps);
    const [session] = await sessionsOf(ledger, await idOf('Una Fell'));
    expect(await endOwnSessions(owner.deps, { only: session?.id ?? 0 })).toBe(0);
    expect(await whoBy(una.token)).toMatchObject({ name: 'Una Fell' });
    expect(await endOwnSessions(una.deps, { only: session?.id ?? 0 })).toBe(1);
    expect(await whoBy(una.token)).toEqual({ kind: 'stranger' });
  });

  test('ends with a change of role, and all of them when an owner says so', async () => {
    const ben = await letIn(ledger, 'Ben Marl', 'viewer', owner.deps);
    const id = await idOf('Ben Marl');
    await changeMember(owner.deps, id, { role: 'bookkeeper' });
    expect(await whoBy(ben.token)).toEqual({ kind: 'stranger' });
    const again = unrefused(await signInAgain(ben, 'Ben Marl'));
    expect(await whoBy(again.token)).toMatchObject({ role: 'bookkeeper' });
    expect(await endSessionsOf(owner.deps, id)).toBe(1);
    expect(await whoBy(again.token)).toEqual({ kind: 'stranger' });
    expect(await endSessionsOf(ben.deps, await idOf('Ilsa Tarn'))).toMatchObject({ code: 'role-lacking' });
  });

  test('a made-up token, an empty one and one of a person who was ended are strangers', async () => {
    const cal = await letIn(ledger, 'Cal Dory', 'viewer', owner.deps);
    await endMember(owner.deps, await idOf('Cal Dory'));
    for (const token of ['', 'x', cal.token]) expect(await whoBy(token)).toEqual({ kind: 'stranger' });
    expect(await signInAgain(cal, 'Cal Dory')).toMatchObject({ code: 'sign-in-refused' });
  });
});

describe('ways to sign in are changed', () => {
  test('only for a quarter of an hour after signing in', async () => {
    const [session] = await sessionsOf(ledger, await idOf('Ilsa Tarn'));
    const from = { ...FROM, session: session ?? null };
    pass(SESSION.freshMs);
    expect(await setOwnPassPhrase(owner.deps, from, {})).toMatchObject({ code: 'sign-in-again' });
    expect(await removeOwnPasskey(owner.deps, from, 1)).toMatchObject({ code: 'sign-in-again' });
    expect(await removeOwnPasskey({ ...ledger }, from, 1)).toMatchObject({ code: 'sign-in-needed' });
  });
});

describe('another program', () => {
  test('comes in by its token until that ends, held to its role and areas', async () => {
    const { token } = unrefused(
      await addProgram(owner.deps, { name: 'Bookkeeping', role: 'owner', scope: ['books'], days: 30 }),
    );
    const { who } = unrefused(await identify(ledger, { session: null, bearer: token }));
    const own = { ...ledger, who };
    expect(await editNames(own, { nameIds: [], edit: {} })).toMatchObject({ code: 'scope-lacking' });
    expect(await identify(ledger, { session: null, bearer: `${token}x` })).toMatchObject({ code: 'token-invalid' });
    const { rows } = await ledger.database.query<{ n: number }>(
      'select count(*)::int as n from people where token_hash = $1',
      [Buffer.from(token)],
    );
    expect(rows[0]?.n).toBe(0);
    pass(30 * 24 * 60 * MINUTE_MS);
    expect(await identify(ledger, { session: null, bearer: token })).toMatchObject({ code: 'token-invalid' });
    owner = { ...owner, ...unrefused(await signInAgain(owner, 'Ilsa Tarn')) };
    owner = { ...owner, deps: await depsOf(ledger, owner.token) };
  });
});

test('a ledger that is emptied, and one into which a backup goes, lets nobody else in', async () => {
  const saved = await backupText(owner.deps);
  expect(saved).not.toContain('argon2id');
  expect(await emptyTheLedger(owner.deps, { names: 0 })).toBe(0);
  expect((await identify(ledger, { session: null, bearer: null })) as object).toMatchObject({
    who: { kind: 'stranger' },
  });
  expect(await restoreText(owner.deps, saved)).toBe(0);
  expect((await identify(ledger, { session: null, bearer: null })) as object).toMatchObject({
    who: { kind: 'stranger' },
  });
  expect(await whoBy(owner.token)).toMatchObject({ name: 'Ilsa Tarn', role: 'owner' });
});
