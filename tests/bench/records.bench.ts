import { afterAll, expect, test } from 'vitest';
import { askRdap, askRdapAt } from '@/connectors/records/rdapClient';
import { blankRecord } from '@/core/records';
import { instant } from '@/core/time';
import { selectComparedExtras, selectNewestRecords } from '@/database/records';
import { importAtOnce } from '@/usecases/imports/importAtOnce';
import { projectedLedger } from '@/usecases/names/ledger';
import { drainChecks, queueChecks } from '@/usecases/records/check';
import { compareAll } from '@/usecases/records/compare';
import { RateLimiter } from '@/usecases/records/rateLimiter';
import { pointRecordsAt } from '../../practice/scenario/links';
import { emptyLedger, TODAY } from '../database/ledger';
import { linkedLedger } from '../database/practice';
import { best, line, portfolioCsv } from './portfolio';

const COUNT = 10_000;
const NAMES = Array.from({ length: COUNT }, (_, i) => `tidewick${String(i).padStart(5, '0')}.com`);
const END = instant('2027-12-09T10:15:00Z');
const PACE = { atOnce: 8, gapMs: 0 };
const report: string[] = [];
afterAll(() => console.log(`\n${report.join('\n')}\n`));

test('10,000 checks against bare requests at the same pace', async () => {
  const made = await linkedLedger(NAMES, END, { nameServers: ['ns1.quaymark.test'] }, 'quaymark', 1e9);
  await pointRecordsAt(made.ledger.database, made.practice.records);
  const base = `http://127.0.0.1:${made.practice.records.rdap}`;
  const limits = { allowedHosts: ['127.0.0.1'] };
  const rateLimiter = new RateLimiter(PACE);
  let start = performance.now();
  await Promise.all(
    NAMES.map(async (name) => {
      await rateLimiter.through('one', () => askRdap(`${base}/registry/`, name, limits));
      await rateLimiter.through('one', () => askRdapAt(`${base}/registrar/quaymark/domain/${name}`, limits));
    }),
  );
  const floor = performance.now() - start;
  await queueChecks(made.ledger, NAMES);
  start = performance.now();
  expect(await drainChecks(made.ledger, Number.POSITIVE_INFINITY, new RateLimiter(PACE))).toBe(COUNT);
  report.push(
    line('10,000 names checked, read and stored', performance.now() - start, 'bare requests, same pace', floor),
  );

  await made.close();
}, 300_000);

test('comparing 50,000 names with their stored records against reading the records', async () => {
  const ledger = await emptyLedger();
  await importAtOnce(ledger, {
    content: Buffer.from(portfolioCsv(50_000)),
    account: null,
    dateOrder: null,
    fullList: false,
    allowPrivateEndings: false,
    dryRun: false,
  });
  const record = { ...blankRecord('rdap', ''), statuses: ['clientTransferProhibited'], registrar: 'Quaymark Names BV' };
  await ledger.database.query(
    `insert into records (ascii, source, protocol, first_at, last_at, hash, record, raw)
     select ascii, 'registry', 'rdap', $2, $2, '', $1::jsonb || jsonb_build_object('ascii', ascii, 'expires',
       jsonb_build_object('at', (extract(epoch from term_end) * 1000)::int8, 'precision', 'instant')), '' from names`,
    [JSON.stringify(record), new Date(TODAY)],
  );
  const reading = await best(2, () => selectNewestRecords(ledger.database, null));
  const [projection, extras, records] = await Promise.all([
    projectedLedger(ledger),
    selectComparedExtras(ledger.database, null),
    selectNewestRecords(ledger.database, null),
  ]);
  expect(records).toHaveLength(50_000);
  const byId = new Map(extras.map((one) => [one.id, one]));
  const comparing = await best(3, () => compareAll(projection, byId, records));
  report.push(line('50,000 names compared with their records', comparing, 'reading the records', reading));
  await ledger.close();
}, 300_000);
