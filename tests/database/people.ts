import { generate } from 'otplib';
import type { Instant } from '@/core/time';
import type { Deps } from '@/usecases/deps';
import type { AskedFrom } from '@/usecases/log';
import { identify } from '@/usecases/people/identify';
import { type CameIn, comeInByPassPhrase, enrolInvited, invite } from '@/usecases/people/invitations';
import type { TestLedger } from './ledger';
import { unrefused } from './unrefused';

/** From where the tests sign in. */
export const FROM: AskedFrom = {
  address: '192.0.2.7',
  agent: 'a test',
  origin: 'http://localhost:4180',
  session: null,
};
export const PHRASE = 'kelp lantern drifts nine harbours';

/** A ledger whose machine's clock is held by hand. */
export interface TimedLedger extends TestLedger {
  machine: { now: number };
}

export function timed(ledger: TestLedger): TimedLedger {
  const machine = { now: Date.parse('2026-11-24T09:12:00Z') };
  return Object.assign(ledger, { machine, machineClock: () => machine.now as Instant });
}

/** Somebody who has come in by a pass phrase with codes. */
export interface Inside extends CameIn {
  readonly secret: string;
  readonly deps: Deps;
}

/** Invites somebody and lets him come in. */
export async function letIn(
  ledger: TimedLedger,
  name: string,
  role: string,
  by: Deps = ledger,
  monthlyLimitMinor?: number,
): Promise<Inside> {
  const { token } = unrefused(await invite(by, { name, role, monthlyLimitMinor }));
  return comeInBy(ledger, token);
}

/** Comes in by a link, by a pass phrase with codes. */
export async function comeInBy(ledger: TimedLedger, token: string): Promise<Inside> {
  const { secret, sealed } = unrefused(await enrolInvited(ledger, token));
  const code = await generate({ secret, epoch: Math.floor(ledger.machine.now / 1000) });
  const came = unrefused(
    await comeInByPassPhrase(ledger, FROM, token, { passPhrase: PHRASE, code, enrolment: sealed }),
  );
  return { ...came, secret, deps: await depsOf(ledger, came.token) };
}

/** The dependencies of a request in a session. */
export async function depsOf(ledger: TestLedger, token: string): Promise<Deps> {
  const { who } = unrefused(await identify(ledger, { session: token, bearer: null }));
  return { ...ledger, who };
}
