import { setTimeout as wait } from 'node:timers/promises';
import { afterEach, describe, expect, test } from 'vitest';
import { addDays, formatInstant, instant } from '@/core/time';
import { carryOnTransfers } from '@/usecases/moving/carryOn';
import { client, handle } from './callApi';
import { type TestLedger, TODAY } from './ledger';
import { sellingDesk } from './marketplace';
import { movingLedger } from './moving';
import { linkedLedger } from './practice';

/** Another program: it knows the interface alone, and follows along by what it is told. */
class Follower {
  private after = 'now';
  readonly seen: {
    readonly kind: string;
    readonly subject: string;
    readonly name: string | null;
    data: Record<string, unknown>;
  }[] = [];

  static async of(ledger: TestLedger): Promise<Follower> {
    (globalThis as { nameLedgerDeps?: unknown }).nameLedgerDeps = ledger;
    const follower = new Follower();
    await follower.read();
    return follower;
  }

  async read(): Promise<void> {
    for (;;) {
      const { data } = await client.GET('/events', { params: { query: { after: this.after, limit: 50 } } });
      if (!data || typeof data === 'string') throw new Error('no events');
      this.after = data.next;
      this.seen.push(...(data.events as typeof this.seen));
      if (data.events.length < 50) return;
    }
  }

  /** Reads on until something is told: what a command begins goes on after its answer. */
  async until(kind: string, member: string, value: unknown): Promise<void> {
    for (let i = 0; i < 200 && !this.told(kind, member).includes(value); i += 1) {
      await wait(50);
      await this.read();
    }
    expect(this.told(kind, member)).toContain(value);
  }

  /** What was told of one kind, by one of its members. */
  told(kind: string, member: string): unknown[] {
    return this.seen.flatMap((event) => (event.kind === kind ? [event.data[member]] : []));
  }
}

const closing: { close(): Promise<void> }[] = [];
afterEach(async () => {
  for (const one of closing.splice(0)) await one.close();
});
const kept = <T extends { close(): Promise<void> }>(one: T): T => {
  closing.push(one);
  return one;
};
const key = (text: string) => ({ 'Idempotency-Key': text });

describe('another program follows along by events alone', () => {
  test('a renewal, planned, started and done', async () => {
    const { ledger } = kept(await linkedLedger(['kelpkiln.com', 'quaybarrow.com'], addDays(TODAY, 20)));
    const follower = await Follower.of(ledger);
    const planned = await client.POST('/runs', {
      body: {
        items: [
          { name: 'kelpkiln.com', years: 1 },
          { name: 'quaybarrow.com', years: 2 },
        ],
      },
    });
    const id = planned.data?.run.id as string;
    const started = await client.POST('/runs/{id}/start', { params: { path: { id }, header: key('start') } });
    expect(started.data).toEqual({ count: 2 });
    await follower.until('run', 'status', 'confirmed');
    expect(follower.told('run', 'status')).toEqual(['planned', 'requested', 'confirmed']);
    const items = follower.seen.filter(({ kind }) => kind === 'run item');
    expect(
      items
        .filter(({ data }) => data.state === 'done')
        .map(({ name }) => name)
        .sort(),
    ).toEqual(['kelpkiln.com', 'quaybarrow.com']);
    expect(items.every(({ subject }) => subject === id)).toBe(true);
    // What it was told is what the interface shows.
    const { data } = await client.GET('/runs/{id}/progress', { params: { path: { id } } });
    expect(data?.items.map(({ state }) => state)).toEqual(['done', 'done']);
  });

  test('a transfer, through each of its stages to its end', async () => {
    const made = kept(await movingLedger(['copperbuoy.com'], { end: instant('2027-06-09T10:15:00Z') }));
    (globalThis as { nameLedgerDeps?: unknown }).nameLedgerDeps = made.ledger;
    const follower = await Follower.of(made.ledger);
    await carryOnTransfers(made.ledger);
    await follower.read();
    const stages = follower.told('transfer', 'stage');
    expect(stages.length).toBeGreaterThan(4);
    expect(stages.at(-1)).toBe('looked after');
    const { data } = await client.GET('/transfers');
    expect(data?.transfers[0]).toMatchObject({ name: 'copperbuoy.com', stage: 'looked after' });
  });

  describe('selling', () => {
    const desk = sellingDesk(['copperbuoy.com']);

    test('an offer at a marketplace, answered, and the sale to its end', async () => {
      const made = await desk.begin();
      const { ledger } = made;
      const follower = await Follower.of(ledger);
      await made.list(['copperbuoy.com']);
      await made.pass(3);
      await follower.read();
      expect(follower.told('listing', 'status').at(-1)).toBe('live');
      const offered = await client.POST('/offers', {
        body: { name: 'copperbuoy.com', buyer: 'Ann Skerry', amount: '550', currency: 'USD' },
      });
      const threadId = String(offered.data?.id);
      await follower.read();
      const offer = follower.seen.find(({ kind }) => kind === 'offer');
      expect(offer).toMatchObject({
        subject: threadId,
        name: 'copperbuoy.com',
        data: { by: 'buyer', minor: 55_000, currency: 'USD', state: 'live' },
      });
      const { data: thread } = await client.GET('/offers/{threadId}', { params: { path: { threadId } } });
      const figureId = thread?.figures[0]?.id as number;
      await client.POST('/offers/{threadId}/answer', {
        params: { path: { threadId }, header: key('accept') },
        body: { figureId, answer: 'accept' },
      });
      await follower.until('sale', 'stage', 'agreed');
      const begun = follower.seen.find(({ kind }) => kind === 'sale');
      expect(begun).toMatchObject({ name: 'copperbuoy.com', data: { stage: 'agreed', priceMinor: 55_000 } });
      const saleId = begun?.subject as string;
      for (const step of [
        { to: 'money held' },
        { to: 'buyer known', handover: 'push', buyerAccount: 'ann-at-quaymark' },
      ] as const) {
        const stepped = await client.POST('/sales/{saleId}/steps', { params: { path: { saleId } }, body: step });
        expect(stepped.error).toBeUndefined();
      }
      const handed = await client.POST('/sales/{saleId}/hand-over', {
        params: { path: { saleId }, header: key('hand over') },
        body: { byHand: false },
      });
      expect(handed.error).toBeUndefined();
      await follower.until('sale', 'stage', 'arrived');
      await client.POST('/sales/{saleId}/steps', { params: { path: { saleId } }, body: { to: 'done' } });
      await follower.read();
      expect(follower.told('sale', 'stage')).toEqual([
        'agreed',
        'money held',
        'buyer known',
        'handed over',
        'arrived',
        'done',
      ]);
      const { data: statement } = await client.GET('/sales/{saleId}', { params: { path: { saleId } } });
      expect(statement).toMatchObject({ sale: { stage: 'done', price: { amount: '550.00', currency: 'USD' } } });
      expect(statement?.restsOn.length).toBeGreaterThan(0);
    });
  });

  test('as it happens: a stream tells a change within two seconds, and goes on behind the last that was read', async () => {
    const { ledger } = kept(await linkedLedger(['kelpkiln.com'], addDays(TODAY, 20)));
    (globalThis as { nameLedgerDeps?: unknown }).nameLedgerDeps = ledger;
    const open = async (more: Record<string, string> = {}) => {
      const ending = new AbortController();
      const answer = await handle(
        new Request('http://127.0.0.1/api/v1/events', {
          headers: { accept: 'text/event-stream', ...more },
          signal: ending.signal,
        }),
      );
      expect(answer.headers.get('content-type')).toBe('text/event-stream');
      const reader = (answer.body as ReadableStream<Uint8Array>).getReader();
      let text = '';
      return {
        until: async (wanted: RegExp) => {
          while (!wanted.test(text)) text += new TextDecoder().decode((await reader.read()).value);
          return text;
        },
        end: async () => {
          ending.abort();
          await reader.cancel();
        },
      };
    };
    const stream = await open();
    await stream.until(/: after/);
    const before = performance.now();
    await client.POST('/edits', { body: { names: ['kelpkiln.com'], edit: { addTags: ['now'] } } });
    const text = await stream.until(/event: history\ndata: .*\n\n/);
    expect(performance.now() - before).toBeLessThan(2500);
    await stream.end();
    const last = /^id: (.*)$/m.exec(text)?.[1] as string;
    await client.POST('/edits', { body: { names: ['kelpkiln.com'], edit: { addTags: ['later'] } } });
    const again = await open({ 'last-event-id': last });
    const rest = await again.until(/event: history\ndata: .*\n\n/);
    expect(rest.match(/^event: /gm)).toHaveLength(1);
    expect(rest).not.toContain(`id: ${last}\n`);
    expect(formatInstant(ledger.clock())).toBe('2026-11-24T09:12:00Z');
    await again.end();
  });
});
