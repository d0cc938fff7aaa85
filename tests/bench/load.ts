import { Agent, request } from 'node:http';
import { setTimeout as wait } from 'node:timers/promises';

/** What came of so many readers and writers asking without a pause. */
export interface Load {
  readonly readsASecond: number;
  readonly writesASecond: number;
  /** Milliseconds: median and 99th percentile. */
  readonly read: readonly [number, number];
  readonly write: readonly [number, number];
  readonly failures: number;
}

const percentile = (sorted: readonly number[], share: number) =>
  Math.round(sorted[Math.min(sorted.length - 1, Math.floor(sorted.length * share))] ?? 0);

/** Readers ask for pages of names, for the ledger as a window does, and for one name; writers change notes. No thinking time. */
export async function underLoad(base: string, readers: number, writers: number, seconds: number): Promise<Load> {
  const agent = new Agent({ keepAlive: true, maxSockets: readers + writers });
  const times = { read: [] as number[], write: [] as number[] };
  let failures = 0;
  let tag = '';
  const ask = (kind: 'read' | 'write', method: string, path: string, headers: Record<string, string>, body = '') =>
    new Promise<void>((resolve) => {
      const since = performance.now();
      const length = body === '' ? {} : { 'content-length': String(Buffer.byteLength(body)) };
      const sent = request(`${base}${path}`, { method, agent, headers: { ...headers, ...length } }, (answer) => {
        if (path === '/ledger/data') tag = answer.headers.etag ?? tag;
        answer.on('data', () => undefined);
        answer.on('end', () => {
          times[kind].push(performance.now() - since);
          if ((answer.statusCode ?? 500) >= 400) failures += 1;
          resolve();
        });
      });
      sent.on('error', () => {
        failures += 1;
        resolve();
      });
      sent.end(body);
    });
  const listed = (await (await fetch(`${base}/api/v1/names?limit=400`)).json()) as { names: { name: string }[] };
  const names = listed.names.map(({ name }) => encodeURIComponent(name));
  const any = () => names[Math.floor(Math.random() * names.length)] ?? '';
  const end = Date.now() + seconds * 1000;
  const reader = async () => {
    while (Date.now() < end) {
      const what = Math.random();
      if (what < 0.6) await ask('read', 'GET', '/api/v1/names?limit=100', {});
      else if (what < 0.9) await ask('read', 'GET', '/ledger/data', { 'if-none-match': tag });
      else await ask('read', 'GET', `/api/v1/names/${any()}`, {});
    }
  };
  const writer = async (i: number) => {
    await wait(i * 10);
    for (let n = 0; Date.now() < end; n += 1)
      await ask(
        'write',
        'PATCH',
        `/api/v1/names/${any()}`,
        { 'content-type': 'application/json' },
        JSON.stringify({ notes: `load ${i} ${n}` }),
      );
  };
  await Promise.all([
    ...Array.from({ length: readers }, reader),
    ...Array.from({ length: writers }, (_, i) => writer(i)),
  ]);
  agent.destroy();
  const sorted = { read: times.read.sort((a, b) => a - b), write: times.write.sort((a, b) => a - b) };
  return {
    readsASecond: Math.round(sorted.read.length / seconds),
    writesASecond: Math.round(sorted.write.length / seconds),
    read: [percentile(sorted.read, 0.5), percentile(sorted.read, 0.99)],
    write: [percentile(sorted.write, 0.5), percentile(sorted.write, 0.99)],
    failures,
  };
}
