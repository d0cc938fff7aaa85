import { afterAll, expect, test } from 'vitest';
import { askRdap, askRdapAt } from '@/connectors/records/rdapClient';
import { instant } from '@/core/time';
import { selectComparedExtras, selectNewestRecords } from '@/database/records';
import { projectedLedger } from '@/usecases/names/ledger';
import { drainChecks, queueChecks } from '@/usecases/records/check';
import { compareAll } from '@/usecases/records/compare';
import { Turnstile } from '@/usecases/records/politeness';
import { pointRecordsAt } from '../../practice/scenario/links';
import { linkedLedger } from '../database/practice';
import { best, line } from './portfolio';

const COUNT = 10_000;
const NAMES = Array.from({ length: COUNT }, (_, i) => `tidewick${String(i).padStart(5, '0')}.com`);
const END = instant('2027-12-09T10:15:00Z');
const PACE = { atOnce: 8, gapMs: 0 };
const report: string[] = [];
afterAll(() => console.log(`\n${report.join('\n')}\n`));

test('10,000 checks against bare requests at the same pace, and comparing against reading the records', async () => {
  const made = await linkedLedger(NAMES, END, { nameServers: ['ns1.quaymark.test'] }, 'quaymark', 1e9);
  await pointRecordsAt(made.ledger.database, made.practice.records);
  const base = `http://127.0.0.1:${made.practice.records.rdap}`;
  const limits = { allowedHosts: ['127.0.0.1'] };
  const turnstile = new Turnstile(PACE);
  let start = performance.now();
  await Promise.all(
    NAMES.map(async (name) => {
      await turnstile.through('one', () => askRdap(`${base}/registry/`, name, limits));
      await turnstile.through('one', () => askRdapAt(`${base}/registrar/quaymark/domain/${name}`, limits));
    }),
  );
  const floor = performance.now() - start;
  await queueChecks(made.ledger, NAMES);
  start = performance.now();
  expect(await drainChecks(made.ledger, Number.POSITIVE_INFINITY, new Turnstile(PACE))).toBe(COUNT);
  report.push(
    line('10,000 names checked, read and stored', performance.now() - start, 'bare requests, same pace', floor),
  );

  const { database } = made.ledger;
  const reading = await best(2, () => selectNewestRecords(database, null));
  const [projection, extras, records] = await Promise.all([
    projectedLedger(made.ledger),
    selectComparedExtras(database, null),
    selectNewestRecords(database, null),
  ]);
  const byId = new Map(extras.map((one) => [one.id, one]));
  const comparing = await best(3, () => compareAll(projection, byId, records));
  report.push(line('10,000 names compared with their 20,000 records', comparing, 'reading the records', reading));
  await made.close();
}, 300_000);
