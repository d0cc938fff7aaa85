import type { RegistrationResponseJSON } from '@simplewebauthn/server';
import { toDataURL } from 'qrcode';
import { isFresh } from '@/core/people';
import { isRefusal, type Refusal, refuse } from '@/core/refusal';
import {
  deletePasskey,
  type PasskeyRow,
  replaceRecoveryCodes,
  selectMember,
  selectPasskeys,
  spendCodeStep,
  updatePassPhrase,
} from '@/database/people';
import { type Transaction, transaction } from '@/database/pool';
import { sealPlace } from '@/database/secrets';
import { deleteSessions } from '@/database/sessions';
import type { Deps } from '../deps';
import type { AskedFrom } from '../log';
import { seal, unseal } from '../secrets/seal';
import { readRequest } from '../validate';
import { noteIn } from './audit';
import { codeAddress, newCodeSecret, newRecoveryCodes, plainRecoveryCode, stepOfCode } from './codes';
import { personOf } from './identify';
import { machineNow } from './machineNow';
import { beginPasskey, type CeremonyAnswer, keepPasskey } from './passkeys';
import { hashPassPhrase, refusePassPhrase } from './passPhrase';
import { PassPhraseForm } from './requests';
import { hashOf } from './tokens';

/** What an authenticator app needs, and what comes back with its first code. */
export interface Enrolment {
  /** The secret as a person types it (base32). */
  readonly secret: string;
  /** The same as a picture to be read, as a data URL. */
  readonly picture: string;
  readonly sealed: string;
}

const enrolmentPlace = (personId: number): string => `person ${personId} new codes`;
const NO_KEY = refuse(
  'key-missing',
  'Set NAME_LEDGER_KEY first, and start the program again: without it nothing can be sealed.',
);

/** Proposes a new secret for somebody's codes. Nothing is kept: it comes back sealed with the first code. */
export async function enrol(
  deps: Deps,
  member: { readonly id: number; readonly name: string },
): Promise<Enrolment | Refusal> {
  if (!deps.key) return NO_KEY;
  const secret = newCodeSecret();
  const [picture, sealed] = await Promise.all([
    toDataURL(codeAddress(secret, member.name), { margin: 1, width: 200 }),
    seal(deps.key, enrolmentPlace(member.id), secret),
  ]);
  return { secret, picture, sealed: sealed.toString('base64url') };
}

/** Looks at a new pass phrase with the first code; keeps it within `also`'s transaction. */
export async function keepPassPhrase<T>(
  deps: Deps,
  member: { readonly id: number; readonly name: string },
  input: unknown,
  also: (tx: Transaction) => Promise<T | Refusal>,
): Promise<T | Refusal> {
  const form = await readRequest(PassPhraseForm, input);
  if (isRefusal(form)) return form;
  if (!deps.key) return NO_KEY;
  const weak = refusePassPhrase(form.passPhrase, member.name);
  if (weak) return weak;
  const secret = await unseal(deps.key, enrolmentPlace(member.id), Buffer.from(form.enrolment, 'base64url'));
  if (secret === null)
    return refuse('enrolment-unknown', 'Load the page again: this picture was not made for you.', 'code');
  const step = await stepOfCode(secret, form.code, machineNow(deps));
  if (step === null) return refuse('code-wrong', 'This is not the code that the app shows now.', 'code');
  const [hash, sealed] = await Promise.all([
    hashPassPhrase(form.passPhrase),
    seal(deps.key, sealPlace.person(member.id), secret),
  ]);
  return transaction(deps.database, async (tx) => {
    await updatePassPhrase(tx, member.id, hash, sealed);
    await spendCodeStep(tx, member.id, step);
    await noteIn(tx, deps, 'pass phrase set', { personId: member.id });
    return also(tx);
  });
}

/** Ten new recovery codes in place of the old ones, told once. */
export async function newCodesFor(tx: Transaction, personId: number): Promise<string[]> {
  const codes = newRecoveryCodes();
  await replaceRecoveryCodes(
    tx,
    personId,
    codes.map((code) => hashOf(plainRecoveryCode(code))),
  );
  return codes;
}

/** How one may sign in. */
export interface OwnWays {
  readonly hasPassPhrase: boolean;
  readonly passkeys: readonly Pick<PasskeyRow, 'id' | 'label' | 'addedAt' | 'usedAt'>[];
  readonly recoveryCodesLeft: number;
}

export async function ownWays(deps: Deps): Promise<OwnWays | null> {
  const person = personOf(deps.who);
  if (!person) return null;
  const [row, passkeys] = await Promise.all([
    selectMember(deps.database, person.id),
    selectPasskeys(deps.database, person.id),
  ]);
  return {
    hasPassPhrase: row?.hasPassPhrase ?? false,
    passkeys: passkeys.map(({ id, label, addedAt, usedAt }) => ({ id, label, addedAt, usedAt })),
    recoveryCodesLeft: row?.recoveryCodesLeft ?? 0,
  };
}

/** The person whose ways to sign in are changed: signed in, and lately (ASVS 5 V7.5.1). */
function lately(deps: Deps, from: AskedFrom) {
  const person = personOf(deps.who);
  if (!person) return refuse('sign-in-needed', 'Sign in first.');
  return from.session && isFresh(from.session, machineNow(deps))
    ? person
    : refuse(
        'sign-in-again',
        'Sign out and in again first: this may be done for a quarter of an hour after signing in.',
      );
}

/** Begins another passkey of one's own. */
export async function beginOwnPasskey(deps: Deps, from: AskedFrom) {
  const person = lately(deps, from);
  return isRefusal(person) ? person : beginPasskey(deps, from, person);
}

export async function addOwnPasskey(
  deps: Deps,
  from: AskedFrom,
  answer: CeremonyAnswer<RegistrationResponseJSON>,
  label: string,
): Promise<true | Refusal> {
  const person = lately(deps, from);
  return isRefusal(person) ? person : keepPasskey(deps, from, person.id, answer, label, async () => true as const);
}

/** Takes a passkey away, but never the last way to sign in. */
export async function removeOwnPasskey(deps: Deps, from: AskedFrom, id: number): Promise<true | Refusal> {
  const person = lately(deps, from);
  if (isRefusal(person)) return person;
  return transaction(deps.database, async (tx) => {
    const ways = await selectMember(tx, person.id);
    if (ways && !ways.hasPassPhrase && ways.passkeys <= 1)
      return refuse('last-way', 'This is your only way to sign in. Set up another first.');
    if (!(await deletePasskey(tx, person.id, id))) return refuse('not-found', 'There is no such passkey.');
    await noteIn(tx, deps, 'passkey removed', { personId: person.id });
    return true as const;
  });
}

/** Proposes a new secret for one's own codes. */
export async function enrolOwn(deps: Deps, from: AskedFrom): Promise<Enrolment | Refusal> {
  const person = lately(deps, from);
  return isRefusal(person) ? person : enrol(deps, person);
}

/** Sets one's own pass phrase and codes; every other session ends. */
export async function setOwnPassPhrase(deps: Deps, from: AskedFrom, input: unknown): Promise<true | Refusal> {
  const person = lately(deps, from);
  if (isRefusal(person)) return person;
  return keepPassPhrase(deps, person, input, async (tx) => {
    await deleteSessions(tx, person.id, { but: from.session?.id ?? 0 });
    return true as const;
  });
}

/** New recovery codes of one's own, told once. */
export async function newOwnRecoveryCodes(deps: Deps, from: AskedFrom): Promise<string[] | Refusal> {
  const person = lately(deps, from);
  if (isRefusal(person)) return person;
  return transaction(deps.database, async (tx) => {
    await noteIn(tx, deps, 'recovery codes made', { personId: person.id });
    return newCodesFor(tx, person.id);
  });
}
