import { chanceFrom } from '@practice/scenario/chance';
import { FIRST_HALVES, SECOND_HALVES } from '@practice/scenario/words';
import { TODAY } from '@/core/ledger/sampleLedger';
import { addDays, formatInstant } from '@/core/time';

const ACCOUNTS = ['Quaymark', 'Wrackgate', 'Fernhithe', 'Bollard', 'Larkhythe'] as const;
const ENDINGS = ['com', 'com', 'com', 'net', 'org', 'io', 'co', 'de', 'uk'] as const;

/** A list of `count` made-up names as a registrar would export it. */
export function portfolioCsv(count: number): string {
  const chance = chanceFrom(50_000);
  const lines = ['name,account,registered,expires,auto-renew,renewal price,currency,asking,tags'];
  for (let i = 0; i < count; i += 1) {
    const name = `${chance.pick(FIRST_HALVES)}${chance.pick(SECOND_HALVES)}${i}.${chance.pick(ENDINGS)}`;
    const end = addDays(TODAY, chance.whole(800) - 70);
    const asking = chance.next() < 0.5 ? String(100 + chance.whole(9000)) : '';
    const setting = chance.next() < 0.7 ? 'on' : 'off';
    lines.push(
      `${name},${chance.pick(ACCOUNTS)},${formatInstant(addDays(end, -3 * 365))},${formatInstant(end)},${setting},11.38,USD,${asking},craft`,
    );
  }
  return `${lines.join('\n')}\n`;
}

/** A figure beside its floor, as the bench prints them. */
export function line(what: string, ms: number, floorWhat: string, floorMs: number): string {
  return `${what.padEnd(58)} ${ms.toFixed(1).padStart(9)} ms   ${floorWhat.padEnd(34)} ${floorMs.toFixed(1).padStart(9)} ms   ×${(ms / floorMs).toFixed(2)}`;
}

/** The shortest of `times` runs, in milliseconds. */
export async function best(times: number, work: () => unknown): Promise<number> {
  let shortest = Number.POSITIVE_INFINITY;
  for (let i = 0; i < times; i += 1) {
    const start = performance.now();
    await work();
    shortest = Math.min(shortest, performance.now() - start);
  }
  return shortest;
}
