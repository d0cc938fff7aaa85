import { setTimeout as wait } from 'node:timers/promises';
import pLimit, { type LimitFunction } from 'p-limit';

/** How politely a host is asked. */
export interface RateLimit {
  readonly atOnce: number;
  /** At least so long between two questions. */
  readonly gapMs: number;
}

const MOST_SILENCES = 4;

export const POLITE: RateLimit = { atOnce: 4, gapMs: 10 };

/** How a host is asked: whose turn it is, when the next question may go, how often it has been silent in a row. */
interface Host {
  readonly turn: LimitFunction;
  next: number;
  silent: number;
}

/** Lets questions to each host through one after the other, a few at once, and none before the host is ready again. */
export class RateLimiter {
  private readonly hosts = new Map<string, Host>();

  constructor(private readonly rateLimit: RateLimit = POLITE) {}

  through<T>(host: string, ask: () => Promise<T>): Promise<T> {
    const state = this.hosts.get(host) ?? { turn: pLimit(this.rateLimit.atOnce), next: 0, silent: 0 };
    this.hosts.set(host, state);
    return state.turn(async () => {
      // Looked at again after each rest: while it lasted the host may have asked for a longer one, or another question went late.
      for (let rest = state.next - Date.now(); rest > 0; rest = state.next - Date.now()) await wait(rest);
      state.next = Date.now() + this.rateLimit.gapMs;
      return ask();
    });
  }

  /** Whether a host gave an answer at all. One that stays silent is not waited for with every name that it is about. */
  heard(host: string, hasAnswered: boolean): void {
    const state = this.hosts.get(host);
    if (state) state.silent = hasAnswered ? 0 : state.silent + 1;
  }

  /** A host that has not answered several times in a row: it is left alone in this pass. */
  isSilent(host: string): boolean {
    return (this.hosts.get(host)?.silent ?? 0) >= MOST_SILENCES;
  }

  /** A new pass: hosts that were silent in the last one are asked again. When each may be asked next stays as it is. */
  beginPass(): void {
    for (const state of this.hosts.values()) state.silent = 0;
  }

  /** The host has asked to be left alone for some time. */
  pause(host: string, ms: number): void {
    const state = this.hosts.get(host);
    if (state) state.next = Math.max(state.next, Date.now() + ms);
  }
}
