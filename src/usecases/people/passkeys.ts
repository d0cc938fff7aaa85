import {
  type AuthenticationResponseJSON,
  generateAuthenticationOptions,
  generateRegistrationOptions,
  type PublicKeyCredentialCreationOptionsJSON,
  type PublicKeyCredentialRequestOptionsJSON,
  type RegistrationResponseJSON,
  verifyAuthenticationResponse,
  verifyRegistrationResponse,
} from '@simplewebauthn/server';
import { type Refusal, refuse } from '@/core/refusal';
import { addDays } from '@/core/time';
import {
  insertChallenge,
  insertPasskey,
  selectPasskey,
  selectPasskeys,
  takeChallenge,
  updatePasskeyUsed,
} from '@/database/people';
import { type Transaction, transaction } from '@/database/pool';
import type { Deps } from '../deps';
import type { AskedFrom } from '../log';
import { countAttempt } from './attempts';
import { note, noteIn } from './audit';
import { machineNow } from './machineNow';
import { beginSession, type SignedIn } from './sessions';
import { hashOf, newToken } from './tokens';

const CHALLENGE_DAYS = 5 / (24 * 60);

/** Under which name passkeys are made: a browser makes none for a bare number (WebAuthn level 2, section 5.1.2: a valid domain). */
function relyingParty(origin: string): string | Refusal {
  const { hostname, protocol, port } = new URL(origin);
  if (hostname === 'localhost' || (protocol === 'https:' && /[a-z]$/i.test(hostname))) return hostname;
  return refuse(
    'passkey-address',
    `Passkeys need a name in the address. Open http://localhost${port ? `:${port}` : ''} on this machine.`,
  );
}

/** What the browser is asked to do, and the token under which its answer is awaited: once, for five minutes. */
export interface Ceremony<Options> {
  readonly options: Options;
  readonly token: string;
}

async function awaiting(deps: Deps, challenge: string, personId: number | null): Promise<string> {
  const token = newToken();
  await insertChallenge(deps.database, hashOf(token), challenge, personId, addDays(machineNow(deps), CHALLENGE_DAYS));
  return token;
}

/** Begins to make a passkey for somebody. */
export async function beginPasskey(
  deps: Deps,
  { origin }: Pick<AskedFrom, 'origin'>,
  member: { readonly id: number; readonly name: string },
): Promise<Ceremony<PublicKeyCredentialCreationOptionsJSON> | Refusal> {
  const rpID = relyingParty(origin);
  if (typeof rpID !== 'string') return rpID;
  const known = await selectPasskeys(deps.database, member.id);
  const options = await generateRegistrationOptions({
    rpName: 'Name Ledger',
    rpID,
    userName: member.name,
    userID: new TextEncoder().encode(`person ${member.id}`),
    attestationType: 'none',
    excludeCredentials: known.map(({ credentialId, transports }) => ({
      id: credentialId,
      transports: [...transports],
    })),
    authenticatorSelection: { residentKey: 'required', userVerification: 'required' },
  });
  return { options, token: await awaiting(deps, options.challenge, member.id) };
}

/** What a browser answers to a ceremony. */
export interface CeremonyAnswer<Response> {
  readonly token: string;
  readonly response: Response;
}

const NO_PASSKEY = refuse('passkey-refused', 'This passkey was not taken. Begin again.');

/** Looks at a passkey that was made; `null` where it does not hold. */
async function looked(deps: Deps, origin: string, personId: number, answer: CeremonyAnswer<RegistrationResponseJSON>) {
  const rpID = relyingParty(origin);
  const awaited = await takeChallenge(deps.database, hashOf(String(answer.token)), machineNow(deps));
  if (typeof rpID !== 'string' || awaited?.personId !== personId) return null;
  try {
    const { registrationInfo } = await verifyRegistrationResponse({
      response: answer.response,
      expectedChallenge: awaited.challenge,
      expectedOrigin: origin,
      expectedRPID: rpID,
      requireUserVerification: true,
    });
    return registrationInfo?.credential ?? null;
  } catch (error) {
    deps.log.warn({ err: error }, 'a passkey was not taken');
    return null;
  }
}

/** Keeps a passkey that was made for somebody, within `also`'s transaction. */
export async function keepPasskey<T>(
  deps: Deps,
  { origin }: Pick<AskedFrom, 'origin'>,
  personId: number,
  answer: CeremonyAnswer<RegistrationResponseJSON>,
  label: string,
  also: (tx: Transaction) => Promise<T | Refusal>,
): Promise<T | Refusal> {
  const credential = await looked(deps, origin, personId, answer);
  if (!credential) return NO_PASSKEY;
  return transaction(deps.database, async (tx) => {
    const isNew = await insertPasskey(tx, {
      personId,
      credentialId: credential.id,
      publicKey: Buffer.from(credential.publicKey),
      counter: credential.counter,
      transports: credential.transports ?? [],
      label: label.trim().slice(0, 60) || 'Passkey',
      addedAt: machineNow(deps),
    });
    if (!isNew) return NO_PASSKEY;
    await noteIn(tx, deps, 'passkey added', { personId });
    return also(tx);
  });
}

/** Begins a sign-in by passkey: the browser offers those it has for here. */
export async function beginSignIn(
  deps: Deps,
  { origin }: Pick<AskedFrom, 'origin'>,
): Promise<Ceremony<PublicKeyCredentialRequestOptionsJSON> | Refusal> {
  const rpID = relyingParty(origin);
  if (typeof rpID !== 'string') return rpID;
  const options = await generateAuthenticationOptions({ rpID, userVerification: 'required' });
  return { options, token: await awaiting(deps, options.challenge, null) };
}

const NOT_SIGNED_IN = refuse('sign-in-refused', 'This passkey opens nothing here. Take another way to sign in.');

/** Signs in by passkey: the right key signed the right challenge, once, for this origin, with its holder there. */
export async function signInByPasskey(
  deps: Deps,
  from: AskedFrom,
  answer: CeremonyAnswer<AuthenticationResponseJSON>,
): Promise<SignedIn | Refusal> {
  const limited = await countAttempt(deps, null, from.address);
  if (limited) return limited;
  const rpID = relyingParty(from.origin);
  if (typeof rpID !== 'string') return rpID;
  const awaited = await takeChallenge(deps.database, hashOf(String(answer.token)), machineNow(deps));
  const passkey = await selectPasskey(deps.database, String(answer.response?.id));
  if (!awaited || awaited.personId !== null || !passkey) return refused(deps, from);
  try {
    const { verified, authenticationInfo } = await verifyAuthenticationResponse({
      response: answer.response,
      expectedChallenge: awaited.challenge,
      expectedOrigin: from.origin,
      expectedRPID: rpID,
      requireUserVerification: true,
      credential: {
        id: passkey.credentialId,
        publicKey: new Uint8Array(passkey.publicKey),
        counter: passkey.counter,
      },
    });
    if (!verified) return refused(deps, from);
    return await transaction(deps.database, async (tx) => {
      await updatePasskeyUsed(tx, passkey.id, authenticationInfo.newCounter, machineNow(deps));
      return beginSession(tx, deps, passkey.member, 'passkey', from);
    });
  } catch (error) {
    deps.log.warn({ err: error }, 'a sign-in by passkey was refused');
    return refused(deps, from);
  }
}

async function refused(deps: Deps, from: AskedFrom): Promise<Refusal> {
  await note(deps, 'sign-in refused', { way: 'passkey', address: from.address });
  return NOT_SIGNED_IN;
}
