import { IsString, MaxLength } from 'class-validator';
import { isRefusal, type Refusal, refuse } from '@/core/refusal';
import { selectPassPhrase, spendCodeStep, spendRecoveryCode } from '@/database/people';
import { transaction } from '@/database/pool';
import { sealPlace } from '@/database/secrets';
import type { Deps } from '../deps';
import type { AskedFrom } from '../log';
import { unseal } from '../secrets/seal';
import { readRequest } from '../validate';
import { countAttempt, forgetAttempts } from './attempts';
import { note } from './audit';
import { plainRecoveryCode, stepOfCode } from './codes';
import { machineNow } from './machineNow';
import { fitsPassPhrase } from './passPhrase';
import { beginSession, type SignedIn } from './sessions';
import { hashOf } from './tokens';

export class PassPhraseSignIn {
  @IsString()
  @MaxLength(80)
  name!: string;

  @IsString()
  @MaxLength(1000)
  passPhrase!: string;

  @IsString()
  @MaxLength(20)
  code!: string;
}

export class RecoverySignIn {
  @IsString()
  @MaxLength(80)
  name!: string;

  @IsString()
  @MaxLength(60)
  recoveryCode!: string;
}

/** One answer for whatever did not fit: it tells nobody which part was right, nor who there is. */
const NOT_SIGNED_IN = refuse('sign-in-refused', 'That does not fit together. Look at each part again.');

/** Signs in by pass phrase and code. Both are looked at whatever the first says, and each code is good once. */
export async function signInByPassPhrase(deps: Deps, from: AskedFrom, input: unknown): Promise<SignedIn | Refusal> {
  const request = await readRequest(PassPhraseSignIn, input);
  if (isRefusal(request)) return request;
  const limited = await countAttempt(deps, request.name, from.address);
  if (limited) return limited;
  const known = await selectPassPhrase(deps.database, request.name.trim());
  const fits = await fitsPassPhrase(request.passPhrase, known?.passPhrase ?? null);
  const secret = known && deps.key ? await unseal(deps.key, sealPlace.person(known.id), known.codeSecret) : null;
  const step = secret === null ? null : await stepOfCode(secret, request.code, machineNow(deps));
  if (!known || !fits || step === null || !(await spendCodeStep(deps.database, known.id, step))) {
    await note(deps, 'sign-in refused', {
      way: 'pass phrase',
      address: from.address,
      ...(known ? { name: known.name } : {}),
    });
    return NOT_SIGNED_IN;
  }
  await forgetAttempts(deps, known.name);
  return transaction(deps.database, (tx) => beginSession(tx, deps, known, 'pass phrase', from));
}

/** Signs in by a recovery code, which is good once. */
export async function signInByRecoveryCode(deps: Deps, from: AskedFrom, input: unknown): Promise<SignedIn | Refusal> {
  const request = await readRequest(RecoverySignIn, input);
  if (isRefusal(request)) return request;
  const limited = await countAttempt(deps, request.name, from.address);
  if (limited) return limited;
  const hash = hashOf(plainRecoveryCode(request.recoveryCode));
  const known = await spendRecoveryCode(deps.database, request.name.trim(), hash, machineNow(deps));
  if (!known) {
    await note(deps, 'sign-in refused', { way: 'recovery code', address: from.address });
    return NOT_SIGNED_IN;
  }
  await forgetAttempts(deps, known.name);
  return transaction(deps.database, (tx) => beginSession(tx, deps, known, 'recovery code', from));
}
