import { connect } from 'node:net';
import { afterAll, expect, test } from 'vitest';
import { amount } from '@/core/money';
import { instant } from '@/core/time';
import * as commands from '@/formats/epp/commands';
import { frame, frameReader } from '@/formats/epp/frames';
import { carryOutRun } from '@/usecases/orders/carryOut';
import { startRun } from '@/usecases/orders/start';
import { type LinkedLedger, linkedLedger } from '../database/practice';
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
function bareRenewals(port: number): Promise<number> {
  return new Promise((resolve, reject) => {
    const socket = connect(port, '127.0.0.1');
    const read = frameReader();
    let next = -1;
    let start = 0;
    const send = (xml: string) => socket.write(frame(xml));
    socket.setNoDelay(true);
    socket.on('error', reject);
    socket.on('data', (piece) => {
      for (const answer of read(piece as Buffer)) {
        if (next === -1) {
          const who = { login: 'harbour-quaymark', password: 'quaymark-practice-pw' };
          const objects = ['urn:ietf:params:xml:ns:domain-1.0'];
          send(commands.login(who, { objects, extensions: ['urn:ietf:params:xml:ns:epp:fee-1.0'] }, 'BARE'));
          next = 0;
          continue;
        }
        if (!answer.includes('code="1000"')) reject(new Error(answer));
        if (next === 0) start = performance.now();
        const name = NAMES[next];
        if (name === undefined) {
          socket.end();
          resolve(performance.now() - start);
          return;
        }
        const order = { name, curExpDate: '2026-12-09', years: 1, fee: amount(1138, 'USD') };
        send(commands.renewDomain(order, `BARE-${next}`));
        next += 1;
      }
    });
  });
}

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
