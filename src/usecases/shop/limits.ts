import { createHash } from 'node:crypto';
import { RateLimiterPostgres, RateLimiterRes } from 'rate-limiter-flexible';
import type { Database } from '@/database/pool';
import type { Deps } from '../deps';

const HOUR = 3600;

/**
 * How much may be sent, counted in the database so that all shops count together: from an address, about a name from an address, to a mail
 * address, and by all the world; without a proof of work much less. Whoever is over a limit is remembered and costs no query. The figures are ours.
 */
const LIMITS = {
  letters: { points: 20, duration: HOUR },
  name: { points: 5, duration: HOUR },
  mail: { points: 3, duration: 24 * HOUR },
  unproved: { points: 2, duration: HOUR },
  'unproved world': { points: 30, duration: HOUR },
  world: { points: 600, duration: HOUR },
  /** What one buyer says at his own page. */
  answers: { points: 30, duration: HOUR },
  /** Tries to open a buyer's own page that is none. */
  links: { points: 60, duration: HOUR },
} as const;
export type ShopLimit = keyof typeof LIMITS;

const limiters = new WeakMap<Database, Map<ShopLimit, RateLimiterPostgres>>();

function limiter({ database }: Pick<Deps, 'database'>, kind: ShopLimit): RateLimiterPostgres {
  const known = limiters.get(database) ?? new Map<ShopLimit, RateLimiterPostgres>();
  limiters.set(database, known);
  const { points, duration } = LIMITS[kind];
  const made =
    known.get(kind) ??
    new RateLimiterPostgres({
      storeClient: database,
      tableName: 'attempts',
      tableCreated: true,
      keyPrefix: `shop ${kind}`,
      points,
      duration,
      inMemoryBlockOnConsumed: points,
    });
  known.set(kind, made);
  return made;
}

/** What is counted of an address: nobody reads it back out of the table. */
const hashed = (key: string) => createHash('sha256').update(key).digest('base64url').slice(0, 22);

/** Counts something against a limit; false when it is one too many. */
export async function isWithin(deps: Pick<Deps, 'database'>, kind: ShopLimit, key = ''): Promise<boolean> {
  try {
    await limiter(deps, kind).consume(hashed(key));
    return true;
  } catch (limit) {
    if (limit instanceof RateLimiterRes) return false;
    throw limit;
  }
}
