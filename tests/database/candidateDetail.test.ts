import { afterEach, beforeEach, describe, expect, test } from 'vitest';
import { isRefusal } from '@/core/refusal';
import { addDays } from '@/core/time';
import { beginApproach, moveApproach, sayApproach } from '@/usecases/acquiring/approaches';
import { askForNames } from '@/usecases/acquiring/askForNames';
import { askNear } from '@/usecases/acquiring/askLinks';
import { carryOnReleases } from '@/usecases/acquiring/carryOnReleases';
import { bringInComingFree } from '@/usecases/acquiring/comingFree';
import { type CandidateDetail, candidateDetail } from '@/usecases/acquiring/detail';
import { offeredEndings } from '@/usecases/acquiring/endings';
import { ideaSets, removeIdeas, saveIdeas } from '@/usecases/acquiring/ideas';
import { orderAtRelease } from '@/usecases/acquiring/releaseOrders';
import { acquiringToday } from '@/usecases/acquiring/today';
import { lookAtUse } from '@/usecases/acquiring/use';
import { removeLink } from '@/usecases/links/links';
import { checkNow } from '@/usecases/records/check';
import { watchNames } from '@/usecases/records/watch';
import { bringInSales } from '@/usecases/selling/comparables';
import { acquiringLedger, agreeTo, strangersHold } from './acquiring';
import { TODAY } from './ledger';
import type { LinkedLedger } from './practice';

let made: LinkedLedger;
beforeEach(async () => {
  made = await acquiringLedger();
});
afterEach(() => made.close());

async function detail(name: string, pieces: readonly string[] = []): Promise<CandidateDetail> {
  const found = await candidateDetail(made.ledger, name, pieces);
  if (isRefusal(found)) throw new Error(found.message);
  return found;
}

describe('beside a candidate', () => {
  test('names that are easily typed for it and are taken, and by whom; how many nobody has asked for', async () => {
    strangersHold(made, 'wrackloff.com', 'wracklof.com');
    const before = await detail('wrackloft.com', ['wrack', 'loft']);
    expect(before.near).toEqual([]);
    expect(before.nearNotAsked).toBeGreaterThan(50);
    expect(await askNear(made.ledger, 'wrackloft.com')).toBeGreaterThan(50);
    const after = await detail('wrackloft.com', ['wrack', 'loft']);
    expect(after.near).toContainEqual({ ascii: 'wracklof.com', kind: 'taken', holder: 'Oda Fennimore' });
    expect(after.nearNotAsked).toBeLessThan(before.nearNotAsked);
  });

  test('without a link there is nobody to ask for what is near', async () => {
    await removeLink(made.ledger, made.accountId);
    expect(await askNear(made.ledger, 'wrackloft.com')).toMatchObject({ code: 'no-link-for-ending' });
  });

  test('the same word under other endings, one’s own among them', async () => {
    strangersHold(made, 'copperbuoy.net');
    await saveIdeas(made.ledger, null, {
      ideas: 'copperbuoy',
      patterns: ['{a}'],
      endings: ['com', 'net', 'org'],
      heldYears: 5,
    });
    await askForNames(made.ledger);
    const { others } = await detail('copperbuoy.org', ['copperbuoy']);
    expect(others.map(({ ascii, kind }) => [ascii, kind])).toEqual([['copperbuoy.net', 'taken']]);
    expect((await detail('coperbuoy.com', ['coperbuoy'])).near).toContainEqual({
      ascii: 'copperbuoy.com',
      kind: 'ours',
      holder: null,
    });
    expect((await detail('coperbuoy.com', ['coperbuoy'])).meant).toEqual([{ piece: 'coperbuoy', meant: 'copperbuoy' }]);
  });

  test('what like names were sold for, in the office’s currency', async () => {
    const sales = 'name,price,date,currency\nwrackbeam.com,1440,2026-03-09,USD\nternloft.com,900,2026-02-09,USD\n';
    expect(await bringInSales(made.ledger, sales, 'USD')).toMatchObject({ added: 2 });
    expect((await detail('wrackloft.com')).like).toMatchObject({ currency: 'USD', medianMinor: 117_000 });
  });

  test('who holds a taken name, whether it is watched, listed, and in use, each with its day', async () => {
    strangersHold(made, 'wrackloft.com');
    Object.assign(made.world.domains.get('wrackloft.com') ?? {}, {
      nameServers: ['ns1.parkwick.test', 'ns2.parkwick.test'],
    });
    await checkNow(made.ledger, 'wrackloft.com');
    await watchNames(made.ledger, { names: ['wrackloft.com'] });
    await bringInComingFree(made.ledger, 'wrackloft.com,2027-01-09', 'harbour list');
    expect(await lookAtUse(made.ledger, 'wrackloft.com')).toMatchObject({ hasNameServers: true, lookedAt: TODAY });
    expect(await detail('wrackloft.com')).toMatchObject({
      takenBy: { holder: 'Oda Fennimore', mail: 'names@ketterby.test', registrar: 'Larkhythe Ltd', seenAt: TODAY },
      isWatched: true,
      listed: { source: 'harbour list', onDay: '2027-01-09' },
      use: { hasNameServers: true, lookedAt: TODAY },
    });
  });

  test('without a name server nothing is said of its use', async () => {
    await made.ledger.database.query("update settings set value = value || '{\"dns\": null}' where key = 'records'");
    expect(await lookAtUse(made.ledger, 'wrackloft.com')).toMatchObject({ code: 'no-name-server' });
  });

  test.each(['', 'no name', '-kelp.com', '<b>.com', "'; drop table names; --.com"])(
    '%j is no name to look at',
    async (text) => {
      expect(isRefusal(await candidateDetail(made.ledger, text, []))).toBe(true);
    },
  );
});

test('endings are told with what they cost and how many one has, those of most own names first', async () => {
  const endings = await offeredEndings(made.ledger);
  expect(endings.map(({ ending, own }) => [ending, own])).toEqual([
    ['com', 1],
    ['net', 0],
  ]);
  expect(endings[0]).toMatchObject({ firstMinor: 1138, fiveYearsMinor: 5 * 1138 });
});

test('ideas are thrown away, what was found of their names is kept', async () => {
  const id = await saveIdeas(made.ledger, null, { ideas: 'wrack', patterns: ['{a}'], endings: ['com'], heldYears: 5 });
  await askForNames(made.ledger);
  await removeIdeas(made.ledger, Number(id));
  expect(await ideaSets(made.ledger)).toEqual([]);
  expect((await detail('wrack.com')).answer).toMatchObject({ askedBy: 'link' });
});

test('Today tells what acquiring wants: by hand, in doubt, an answer overdue, to pay, to arrive, and its news', async () => {
  const { ledger, accountId } = made;
  const what = async () => (await acquiringToday(ledger)).map((item) => [item.ascii, item.what]);
  expect(await what()).toEqual([]);
  await agreeTo(made, ['ternloft.com']);
  await ledger.database.query('update registrations set by_hand = true');
  expect(await what()).toEqual([['ternloft.com', 'to register by hand']]);
  await ledger.database.query("update registrations set state = 'doubt'");
  expect(await what()).toEqual([['ternloft.com', 'in doubt']]);
  await ledger.database.query("update registrations set state = 'refused'");

  strangersHold(made, 'wrackloft.com');
  const id = Number(await beginApproach(ledger, { name: 'wrackloft.com', currency: 'USD' }));
  await sayApproach(ledger, { id, isOurs: true, text: 'Would you part with it?', answerBy: '2026-11-26' });
  expect(await what()).toEqual([]);
  ledger.setClock(addDays(TODAY, 3));
  expect(await what()).toEqual([['wrackloft.com', 'answer overdue']]);
  await moveApproach(ledger, { id, to: 'agreed', agreedMinor: 100, arrivesBy: 'push', accountId });
  expect(await what()).toEqual([['wrackloft.com', 'to pay']]);
  await moveApproach(ledger, { id, to: 'paid', paidOn: '2026-11-25' });
  expect(await what()).toEqual([['wrackloft.com', 'to arrive']]);
  await moveApproach(ledger, { id, to: 'ended' });

  await orderAtRelease(ledger, {
    name: 'cairnloft.com',
    accountIds: [accountId],
    years: 1,
    mostFirstMinor: 2000,
    mostRenewalMinor: 2000,
    until: '2026-12-20',
  });
  await carryOnReleases(ledger);
  expect(await what()).toEqual([['cairnloft.com', 'got']]);
  ledger.setClock(addDays(TODAY, 10));
  expect(await what()).toEqual([]);
});
