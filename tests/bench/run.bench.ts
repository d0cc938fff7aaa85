import { afterAll, expect, test } from 'vitest';
import { amount } from '@/core/money';
import { instant } from '@/core/time';
import * as commands from '@/formats/epp/commands';
import { carryOutRun } from '@/usecases/orders/carryOut';
import { startRun } from '@/usecases/orders/start';
import { type LinkedLedger, linkedLedger } from '../database/practice';
import { bareEpp } from './bareEpp';
import { line } from './portfolio';

const COUNT = 1000;
const NAMES = Array.from({ length: COUNT }, (_, i) => `tidewick${String(i).padStart(4, '0')}.com`);
const END = instant('2026-12-09T10:15:00Z');
const report: string[] = [];
afterAll(() => console.log(`\n${report.join('\n')}\n`));

/** A practice registrar whose customer can pay for everything. */
async function rich(): Promise<LinkedLedger> {
  const made = await linkedLedger(NAMES, END, { auto: 'off' });
  const customer = made.world.customers.get('quaymark');
  if (customer) customer.balanceMinor = 1e9;
  return made;
}

/** Renews every name by bare EPP commands, one after the other over one socket. */
const bareRenewals = (port: number) =>
  bareEpp(
    port,
    NAMES.map((name, i) =>
      commands.renewDomain({ name, curExpDate: '2026-12-09', years: 1, fee: amount(1138, 'USD') }, `BARE-${i}`),
    ),
  );

test('a run of 1,000 names against bare EPP renew commands over one socket', async () => {
  const bare = await rich();
  const floor = await bareRenewals(bare.practice.ports.quaymark ?? 0);
  await bare.close();
  const made = await rich();
  const id = await made.plan(NAMES);
  const start = performance.now();
  expect(await startRun(made.ledger, id)).toBe(COUNT);
  expect(await carryOutRun(made.ledger, id)).toEqual({ settled: COUNT, left: 0 });
  const took = performance.now() - start;
  expect(made.world.receipts).toHaveLength(COUNT);
  await made.close();
  report.push(line('a run of 1,000 names, looked up, sent and booked', took, 'bare EPP renewals, one socket', floor));
});
