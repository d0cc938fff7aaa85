import { describe, expect, test } from 'vitest';
import { eppLink } from '@/connectors/registrar/eppLink';
import { addDays } from '@/core/time';
import { openDatabase } from '@/database/pool';
import { selectSales } from '@/database/sales';
import type { Deps } from '@/usecases/deps';
import { removeLink } from '@/usecases/links/links';
import { pollEveryAccount } from '@/usecases/links/poll';
import { foreignTransfers } from '@/usecases/moving/foreign';
import { saveRate } from '@/usecases/rates/rates';
import { drainChecks } from '@/usecases/records/check';
import { bringInSales, pastSales } from '@/usecases/selling/comparables';
import { followSelling } from '@/usecases/selling/follow';
import { answerOffer, enterOffer, threadsOf } from '@/usecases/selling/offers';
import { handOver, stepSale, transferCode } from '@/usecases/selling/sales';
import { soldList, statementOf } from '@/usecases/selling/statement';
import { beginTransfer } from '../../practice/world/moving';
import type { Domain } from '../../practice/world/types';
import { backupText, restoreText } from './backups';
import { Cables } from './cables';
import { emptyLedger, TODAY } from './ledger';
import { booked, must, sellingDesk } from './marketplace';

const NAMES = ['copperbuoy.com', 'larchpilot.com', 'tidewick.com'] as const;
const [COPPER, LARCH, _TIDE] = NAMES;

const desk = sellingDesk(NAMES);
const { begin, id, sales } = desk;

describe('handing over', () => {
  const promised = async () => {
    await begin();
    const threadId = must(
      await enterOffer(desk.made.ledger, { nameId: id(COPPER), buyer: 'Ann', amount: '550', currency: 'USD' }),
    );
    const figureId = (await threadsOf(desk.made.ledger, id(COPPER)))[0]?.figures[0]?.id;
    must(await answerOffer(desk.made.ledger, { threadId, figureId, answer: 'accept' }));
    const saleId = (await sales())[0]?.id as number;
    must(await stepSale(desk.made.ledger, { saleId, to: 'money held' }));
    return saleId;
  };

  test('a push whose answer is lost is looked after, and is not made twice', async () => {
    const saleId = await promised();
    expect(await stepSale(desk.made.ledger, { saleId, to: 'buyer known' })).toMatchObject({
      code: 'buyer-account-missing',
    });
    must(
      await stepSale(desk.made.ledger, {
        saleId,
        to: 'buyer known',
        handover: 'push',
        buyerAccount: 'ann-at-quaymark',
      }),
    );
    desk.made.practice.faults.set('quaymark', 'result lost', 1);
    expect(await handOver(desk.made.ledger, { saleId, byHand: false })).toMatchObject({ code: 'link-failed' });
    expect(desk.made.world.domains.get(COPPER)?.owner).toBe('stranger');
    await followSelling(desk.made.ledger);
    expect((await sales())[0]?.stage).toBe('handed over');
    await followSelling(desk.made.ledger);
    expect((await sales())[0]?.stage).toBe('arrived');
    must(await stepSale(desk.made.ledger, { saleId, to: 'done' }));
    expect(await booked(desk.made)).toEqual([{ kind: 'sale', minor: -55_000 }]);
  });

  test('cut anywhere in flight, a handover goes on later and is made once, with one code', async () => {
    for (const pieces of [2, 6, 10, 14, 18, 22, 26]) {
      const saleId = await promised();
      must(
        await stepSale(desk.made.ledger, {
          saleId,
          to: 'buyer known',
          handover: 'transfer',
          buyerAccount: 'wrackgate',
        }),
      );
      const cables = new Cables();
      const url = new URL(desk.made.ledger.url);
      url.port = String(await cables.to(Number(url.port)));
      const port = await cables.to(desk.made.practice.ports.quaymark ?? 0);
      const database = openDatabase(url.toString(), () => undefined, { max: 4 });
      const links: Deps['links'] = new Map();
      const killed: Deps = {
        ...desk.made.ledger,
        database,
        links,
        connect: (address) => eppLink({ ...address, port }, { timeoutMs: 400, sessions: 1 }),
      };
      cables.cutAfter(pieces);
      await handOver(killed, { saleId, byHand: false }).catch(() => null);
      await cables.close();
      for (const { link } of links.values()) await link.close();
      await database.end();
      const [sale] = await sales();
      if (sale?.stage === 'buyer known' && !sale.handingOver)
        must(await handOver(desk.made.ledger, { saleId, byHand: false }));
      await followSelling(desk.made.ledger);
      expect([pieces, (await sales())[0]?.stage]).toEqual([pieces, 'handed over']);
      const code = must(await transferCode(desk.made.ledger, saleId));
      expect([pieces, desk.made.world.domains.get(COPPER)?.authInfo]).toEqual([pieces, code]);
      await desk.made.close();
    }
    await begin();
  }, 120_000);

  test('a transfer: the lock is off, the buyer has a code of its own', async () => {
    const saleId = await promised();
    const domain = desk.made.world.domains.get(COPPER);
    if (domain) domain.lock = true;
    must(
      await stepSale(desk.made.ledger, { saleId, to: 'buyer known', handover: 'transfer', buyerAccount: 'wrackgate' }),
    );
    const handed = must(await handOver(desk.made.ledger, { saleId, byHand: false }));
    expect(handed.hasCode).toBe(true);
    const code = must(await transferCode(desk.made.ledger, saleId));
    // 144 bits: RFC 9154 section 4.1 wants 128 at least.
    expect(code).toMatch(/^[\w-]{24}$/);
    expect(desk.made.world.domains.get(COPPER)).toMatchObject({ lock: false, authInfo: code });
    // It stands nowhere in the open: not in the database, not in a backup.
    const { rows } = await desk.made.ledger.database.query<{ row: string }>(
      'select row_to_json(s)::text as row from sales s union all select row_to_json(t)::text from transfers t',
    );
    expect(rows.map(({ row }) => row).join()).not.toContain(code);
    must(await stepSale(desk.made.ledger, { saleId, to: 'arrived' }));
    expect(await transferCode(desk.made.ledger, saleId)).toMatchObject({ code: 'code-gone' });
  });

  test('the buyer’s registrar asks with the code: approved at once, arrived, and no alarm', async () => {
    const saleId = await promised();
    const { ledger, world } = desk.made;
    must(await stepSale(ledger, { saleId, to: 'buyer known', handover: 'transfer', buyerAccount: 'wrackgate' }));
    must(await handOver(ledger, { saleId, byHand: false }));
    const domain = world.domains.get(COPPER) as Domain;
    beginTransfer(world, domain, { to: 'wrackgate', holder: 'Oda Fennimore' });
    await pollEveryAccount(ledger);
    await followSelling(ledger);
    expect(domain).toMatchObject({ registrar: 'wrackgate', owner: 'stranger', transfer: null });
    expect((await sales())[0]?.stage).toBe('arrived');
    await pollEveryAccount(ledger);
    expect(await foreignTransfers(ledger)).toEqual([]);
  });

  test('a sale that comes to nothing puts the name back: locked, its code changed, auto-renew as before', async () => {
    const saleId = await promised();
    const { ledger, world } = desk.made;
    const domain = world.domains.get(COPPER) as Domain;
    Object.assign(domain, { lock: true, auto: 'on' });
    await ledger.database.query("update names set lock = true, setting = 'on'");
    must(await stepSale(ledger, { saleId, to: 'buyer known', handover: 'transfer', buyerAccount: 'wrackgate' }));
    must(await handOver(ledger, { saleId, byHand: false }));
    expect(domain).toMatchObject({ lock: false, auto: 'off' });
    must(await stepSale(ledger, { saleId, to: 'dispute' }));
    expect(await transferCode(ledger, saleId)).toMatchObject({ code: 'code-gone' });
    await followSelling(ledger);
    expect(domain).toMatchObject({ registrar: 'quaymark', lock: true, auto: 'on', authInfo: '' });
  });

  test('a transfer of an account without a link has arrived when the registration record shows another registrar', async () => {
    const saleId = await promised();
    must(
      await stepSale(desk.made.ledger, { saleId, to: 'buyer known', handover: 'transfer', buyerAccount: 'wrackgate' }),
    );
    await removeLink(desk.made.ledger, desk.made.accountId);
    expect(await handOver(desk.made.ledger, { saleId, byHand: false })).toMatchObject({ code: 'no-link' });
    must(await handOver(desk.made.ledger, { saleId, byHand: true }));
    await followSelling(desk.made.ledger);
    await drainChecks(desk.made.ledger);
    expect((await sales())[0]?.stage).toBe('handed over');
    const domain = desk.made.world.domains.get(COPPER);
    if (domain) domain.registrar = 'wrackgate';
    desk.made.ledger.setClock(addDays(TODAY, 2));
    await followSelling(desk.made.ledger);
    await drainChecks(desk.made.ledger);
    await followSelling(desk.made.ledger);
    expect((await sales())[0]?.stage).toBe('arrived');
    expect((await statementOf(desk.made.ledger, saleId))?.steps.at(-1)).toMatchObject({
      stage: 'arrived',
      origin: 'record',
    });
  });

  test('a dispute comes back to its place, or ends it', async () => {
    const saleId = await promised();
    must(await stepSale(desk.made.ledger, { saleId, to: 'dispute', note: 'the buyer has not seen it' }));
    expect(await stepSale(desk.made.ledger, { saleId, to: 'done' })).toMatchObject({ code: 'stage-out-of-order' });
    must(await stepSale(desk.made.ledger, { saleId, to: 'refused' }));
    expect(await booked(desk.made)).toEqual([]);
    const statement = await statementOf(desk.made.ledger, saleId);
    expect(statement?.steps.map(({ stage }) => stage)).toEqual(['agreed', 'money held', 'dispute', 'refused']);
  });
});

test('the statement: every figure, profit over what the name has cost, and the yearly return', async () => {
  await begin();
  const { database } = desk.made.ledger;
  await database.query("insert into batches (at, kind, summary) values (now(), 'entry', 'test')");
  await database.query(
    `insert into entries (name_id, batch_id, on_day, kind, minor, currency)
     select $1, max(id), d.day::date, 'renewal', d.minor, d.currency from batches, (values ('2024-11-24', 10000, 'USD'), ('2025-11-24', 5000, 'EUR')) d(day, minor, currency)
     group by d.day, d.minor, d.currency`,
    [id(COPPER)],
  );
  must(await saveRate(desk.made.ledger, { from: '2025-01-01', currency: 'EUR', into: 'USD', factor: 1.2 }));
  const threadId = must(
    await enterOffer(desk.made.ledger, { nameId: id(COPPER), buyer: 'Ann', amount: '400', currency: 'USD' }),
  );
  const figureId = (await threadsOf(desk.made.ledger, id(COPPER)))[0]?.figures[0]?.id;
  must(await answerOffer(desk.made.ledger, { threadId, figureId, answer: 'accept' }));
  const saleId = (await sales())[0]?.id as number;
  for (const to of ['money held', 'buyer known', 'handed over', 'arrived', 'done'])
    must(
      await stepSale(desk.made.ledger, {
        saleId,
        to,
        ...(to === 'buyer known' ? { handover: 'push', buyerAccount: 'ann' } : {}),
      }),
    );
  const statement = await statementOf(desk.made.ledger, saleId);
  // 100.00 two years ago and 50.00 EUR at 1.20 one year ago; 400.00 now: 100(1+r)² + 60(1+r) = 400.
  expect(statement).toMatchObject({ cost: { minor: 16_000 }, profit: { minor: 24_000 }, heldDays: 730 });
  expect(statement?.yearlyReturn).toBeCloseTo((-60 + Math.sqrt(3600 + 160_000)) / 200 - 1, 6);
  const sold = await soldList(desk.made.ledger);
  expect(sold.lines).toMatchObject([{ ascii: COPPER, profit: { minor: 24_000 }, marketplace: 'the office' }]);
  expect(sold.totals.map(({ by, key }) => `${by} ${key}`)).toEqual([
    'year 2026',
    'ending .com',
    'marketplace the office',
    'currency USD',
  ]);
  expect((await pastSales(desk.made.ledger)).filter((sale) => sale.own)).toHaveLength(1);
  // A file of an earlier version says in words which entries are of the sale: the price is no cost there either.
  const older = (await backupText(desk.made.ledger)).replaceAll(
    /(\{[^{}]*"on_day"[^{}]*)"sale_id":\d+/g,
    '$1"sale_id":null',
  );
  const other = await emptyLedger();
  try {
    must(await restoreText(other, older.replaceAll('"reference":""', `"reference":"sale ${saleId}"`)));
    expect((await statementOf(other, saleId))?.costs).toEqual([]);
    const again = await emptyLedger();
    must(await restoreText(again, older));
    expect(await statementOf(again, saleId)).toMatchObject({ cost: { minor: 16_000 } });
    await again.close();
  } finally {
    await other.close();
  }
});

test('selling comes along in a backup, and a name that is promised stays promised', async () => {
  await begin();
  await desk.made.list([COPPER, LARCH]);
  const threadId = must(
    await enterOffer(desk.made.ledger, { nameId: id(COPPER), buyer: 'Ann', amount: '550', currency: 'USD' }),
  );
  const figureId = (await threadsOf(desk.made.ledger, id(COPPER)))[0]?.figures[0]?.id;
  must(await answerOffer(desk.made.ledger, { threadId, figureId, answer: 'accept' }));
  must(await saveRate(desk.made.ledger, { from: '2025-01-01', currency: 'EUR', into: 'USD', factor: 1.2 }));
  const backup = await backupText(desk.made.ledger);
  const other = await emptyLedger();
  try {
    must(await restoreText(other, backup));
    expect(await backupText(other)).toBe(backup);
    expect(await selectSales(other.database)).toMatchObject([{ ascii: COPPER, buyer: 'Ann', stage: 'agreed' }]);
    const late = must(await enterOffer(other, { nameId: id(COPPER), buyer: 'Ben', amount: '700', currency: 'USD' }));
    const [thread] = await threadsOf(other, id(COPPER));
    expect(
      await answerOffer(other, { threadId: late, figureId: thread?.figures[0]?.id, answer: 'accept' }),
    ).toMatchObject({ code: 'name-promised' });
  } finally {
    await other.close();
  }
});

test('past sales of others come in from a table, once; what cannot be read is told by line', async () => {
  await begin();
  const table =
    'Name,Price,Date,Marketplace\nkelpkiln.com,"$1,200",2026-03-09,Hall\nbad name,5,2026-01-01,\nfoghorn.net,80 EUR,2026-02-30,\nquayrope.org,95,2026-02-02,\n';
  expect(await bringInSales(desk.made.ledger, table, 'USD')).toMatchObject({
    added: 2,
    known: 0,
    refused: [{ line: 3 }, { line: 4 }],
  });
  expect(await bringInSales(desk.made.ledger, table, 'USD')).toMatchObject({ added: 0, known: 2 });
  expect(await bringInSales(desk.made.ledger, 'a,b\n1,2', 'USD')).toMatchObject({ code: 'column-missing' });
});
