import { RateLimiterPostgres, RateLimiterRes } from 'rate-limiter-flexible';
import { type Refusal, refuse } from '@/core/refusal';
import type { Deps } from '../deps';

const WINDOW_SECONDS = 15 * 60;
/** So often may one account, and one address, be tried in a quarter of an hour. Source: ASVS 5 V6.3.1; the figures are ours. */
export const MOST_ATTEMPTS = { account: 10, address: 50 } as const;

const limiter = ({ database }: Pick<Deps, 'database'>, kind: keyof typeof MOST_ATTEMPTS) =>
  new RateLimiterPostgres({
    storeClient: database,
    tableName: 'attempts',
    tableCreated: true,
    keyPrefix: kind,
    points: MOST_ATTEMPTS[kind],
    duration: WINDOW_SECONDS,
  });

/** Counts an attempt to sign in, in the database, so that all processes count together; why it is one too many, or `null`. */
export async function countAttempt(deps: Deps, account: string | null, address: string): Promise<Refusal | null> {
  try {
    await limiter(deps, 'address').consume(address);
    if (account !== null) await limiter(deps, 'account').consume(account.toLowerCase().slice(0, 200));
    return null;
  } catch (limit) {
    if (!(limit instanceof RateLimiterRes)) throw limit;
    const minutes = Math.ceil((limit.msBeforeNext ?? 0) / 60_000);
    return refuse(
      'attempts-too-many',
      `Too many attempts. Try again in ${minutes === 1 ? 'a minute' : `${minutes} minutes`}, or ask an owner.`,
    );
  }
}

/** Forgets the attempts of an account that has signed in. */
export async function forgetAttempts(deps: Deps, account: string): Promise<void> {
  await limiter(deps, 'account').delete(account.toLowerCase().slice(0, 200));
}
