import { afterAll, expect, test } from 'vitest';
import { indexRules, type LedgerName, projectLedger, rowsOn } from '@/core/ledger';
import { GENERIC, nameWith, QUAYMARK, RENEWAL, rulesWith, TODAY } from '@/core/ledger/sampleLedger';
import { planMoves } from '@/core/moving';
import type { Price } from '@/core/pricing';
import { addDays, formatInstant } from '@/core/time';
import { chanceFrom } from '../../practice/scenario/chance';
import { best, line } from './portfolio';

const ENDINGS = ['com', 'net', 'org', 'info', 'biz', 'de', 'nl', 'uk', 'eu', 'io', 'app', 'shop'];
const ACCOUNTS = 6;
const report: string[] = [];
afterAll(() => console.log(`\n${report.join('\n')}\n`));

test('a plan for 5,000 names at six accounts over ten years, under a budget', async () => {
  const chance = chanceFrom(7);
  const accounts = Array.from({ length: ACCOUNTS }, (_, i) => ({ ...QUAYMARK, id: i + 1, label: `account ${i + 1}` }));
  const prices = accounts.flatMap(({ id }) =>
    ENDINGS.flatMap((ending): Price[] =>
      (['renew', 'transfer'] as const).map((action) => ({
        ...RENEWAL,
        accountId: id,
        ending,
        action,
        yearMinor: 800 + chance.whole(1500),
      })),
    ),
  );
  const names = Array.from({ length: 5000 }, (_, i): LedgerName => {
    const ending = chance.pick(ENDINGS);
    const expires = formatInstant(addDays(TODAY, chance.whole(700)));
    return nameWith(`n${i}.${ending}`, expires, {
      ending,
      accountId: 1 + chance.whole(ACCOUNTS),
      setting: chance.pick(['on', 'off'] as const),
      lock: chance.whole(2) === 0,
    });
  });
  const projection = projectLedger(indexRules(rulesWith({ accounts, policies: [GENERIC], prices })), names, TODAY);
  const rowsOf = () => {
    const read = rowsOn(projection, TODAY);
    return names.map((_, place) => read(place));
  };
  const floor = await best(5, rowsOf);
  const rows = rowsOf();
  const plan = (budgetMinor: number | null) => () =>
    planMoves(projection, rows, { years: 10, targetId: null, budgetMinor, evenIfDearer: false });
  expect(plan(1_000_000)().waves.length).toBeGreaterThan(1);
  for (const budget of [null, 1_000_000] as const)
    report.push(
      line(
        `a plan for 5,000 names, six accounts, ten years${budget ? ', under a budget' : ''} (goal 500 ms)`,
        await best(3, plan(budget)),
        'reading their rows',
        floor,
      ),
    );
});
