import { setTimeout as wait } from 'node:timers/promises';

/** How politely a host is asked. */
export interface Politeness {
  readonly atOnce: number;
  /** At least so long between two questions. */
  readonly gapMs: number;
}

export const POLITE: Politeness = { atOnce: 4, gapMs: 10 };

/** Lets questions to each host through one after the other, a few at once, and none before the host is ready again. */
export class Turnstile {
  private readonly hosts = new Map<string, { open: number; next: number; queue: (() => void)[] }>();

  constructor(private readonly politeness: Politeness = POLITE) {}

  async through<T>(host: string, ask: () => Promise<T>): Promise<T> {
    const state = this.hosts.get(host) ?? { open: 0, next: 0, queue: [] };
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

  /** The host has asked to be left alone for some time. */
  pause(host: string, ms: number): void {
    const state = this.hosts.get(host);
    if (state) state.next = Math.max(state.next, Date.now() + ms);
  }
}
