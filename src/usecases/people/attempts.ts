import { RateLimiterPostgres, RateLimiterRes } from 'rate-limiter-flexible';
import { type Refusal, refuse } from '@/core/refusal';
import type { Database } from '@/database/pool';
import type { Deps } from '../deps';

const WINDOW_SECONDS = 15 * 60;
/** So often may one account, and one address, be tried in a quarter of an hour. Source: ASVS 5 V6.3.1; the figures are ours. */
export const MOST_ATTEMPTS = { account: 10, address: 50 } as const;

type Limited = keyof typeof MOST_ATTEMPTS;

const limiterOn = (database: Database, kind: Limited) =>
  new RateLimiterPostgres({
    storeClient: database,
    tableName: 'attempts',
    tableCreated: true,
    keyPrefix: kind,
    points: MOST_ATTEMPTS[kind],
    duration: WINDOW_SECONDS,
  });

/** One of each kind for a pool: each clears away what is over by a timer of its own. */
const limiters = new WeakMap<Database, Readonly<Record<Limited, RateLimiterPostgres>>>();

function limiter({ database }: Pick<Deps, 'database'>, kind: Limited): RateLimiterPostgres {
  const known = limiters.get(database) ?? {
    account: limiterOn(database, 'account'),
    address: limiterOn(database, 'address'),
  };
  limiters.set(database, known);
  return known[kind];
}

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
