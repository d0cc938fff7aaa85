import { setTimeout as wait } from 'node:timers/promises';

/** How politely a host is asked. */
export interface Politeness {
  readonly atOnce: number;
  /** At least so long between two questions. */
  readonly gapMs: number;
}

const MOST_SILENCES = 4;

export const POLITE: Politeness = { atOnce: 4, gapMs: 10 };

/** Lets questions to each host through one after the other, a few at once, and none before the host is ready again. */
export class Turnstile {
  private readonly hosts = new Map<string, { open: number; next: number; queue: (() => void)[]; silent: number }>();

  constructor(private readonly politeness: Politeness = POLITE) {}

  async through<T>(host: string, ask: () => Promise<T>): Promise<T> {
    const state = this.hosts.get(host) ?? { open: 0, next: 0, queue: [], silent: 0 };
    this.hosts.set(host, state);
    while (state.open >= this.politeness.atOnce) await new Promise<void>((go) => state.queue.push(go));
    state.open += 1;
    try {
      const now = Date.now();
      const at = Math.max(now, state.next);
      state.next = at + this.politeness.gapMs;
      if (at > now) await wait(at - now);
      return await ask();
    } finally {
      state.open -= 1;
      state.queue.shift()?.();
    }
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

  /** The host has asked to be left alone for some time. */
  pause(host: string, ms: number): void {
    const state = this.hosts.get(host);
    if (state) state.next = Math.max(state.next, Date.now() + ms);
  }
}
