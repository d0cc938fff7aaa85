import { createHash, randomBytes } from 'node:crypto';
import { isbot } from 'isbot';
import { LRUCache } from 'lru-cache';
import { VISITS_SHOWN_DAYS } from '@/core/shop';
import { type Day, dayOf } from '@/core/time';
import { addVisits, selectVisitDays } from '@/database/visits';
import type { Deps } from '../deps';

/** A window that was opened: which, from where, by what. */
export interface Opened {
  readonly nameId: number;
  readonly address: string;
  readonly agent: string;
  /** What the browser says it fetches for: a page that is fetched ahead was not opened. */
  readonly purpose: string;
}

/** Who looks again within half an hour looks once. */
const SAME_VISIT_MS = 1_800_000;
const MOST_REMEMBERED = 50_000;
const WRITE_EVERY_MS = 5000;

/**
 * Counts how often windows are opened, by name and day, and writes it down every few seconds. Of who opened them nothing is kept: for half
 * an hour this process alone remembers a hash, salted by chance, so that one visit counts once.
 */
export class VisitCounter {
  private readonly salt = randomBytes(16);
  private readonly seen = new LRUCache<string, true>({ max: MOST_REMEMBERED, ttl: SAME_VISIT_MS });
  private counted = new Map<string, { nameId: number; day: Day; visits: number }>();
  private readonly timer: NodeJS.Timeout;

  constructor(private readonly deps: Deps) {
    this.timer = setInterval(() => void this.write(), WRITE_EVERY_MS);
    this.timer.unref();
  }

  opened({ nameId, address, agent, purpose }: Opened): void {
    if (agent === '' || /prefetch|prerender/i.test(purpose)) return;
    const who = createHash('sha256').update(this.salt).update(`${nameId} ${address} ${agent}`).digest('base64');
    if (this.seen.has(who)) return;
    this.seen.set(who, true);
    if (isbot(agent)) return;
    const day = dayOf(this.deps.clock());
    const key = `${nameId} ${day}`;
    this.counted.set(key, { nameId, day, visits: (this.counted.get(key)?.visits ?? 0) + 1 });
  }

  /** Writes down what was counted since; what cannot be written now is kept for the next time. */
  async write(): Promise<void> {
    const now = this.counted;
    if (now.size === 0) return;
    this.counted = new Map();
    try {
      await addVisits(this.deps.database, [...now.values()]);
    } catch (error) {
      this.deps.log.warn({ err: error }, 'visits could not be written down');
      for (const [key, one] of now)
        this.counted.set(key, { ...one, visits: one.visits + (this.counted.get(key)?.visits ?? 0) });
    }
  }

  async close(): Promise<void> {
    clearInterval(this.timer);
    await this.write();
  }
}

/** The visits of a name's window on the last 30 days, the last first; days without any are left out. */
export function visitsOf(deps: Deps, nameId: number): Promise<{ day: Day; visits: number }[]> {
  return selectVisitDays(deps.database, nameId, deps.clock(), VISITS_SHOWN_DAYS);
}
