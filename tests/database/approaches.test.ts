import { afterEach, beforeEach, describe, expect, test } from 'vitest';
import { isRefusal } from '@/core/refusal';
import { addDays } from '@/core/time';
import { approaches, beginApproach, moveApproach, sayApproach } from '@/usecases/acquiring/approaches';
import { bringInComingFree, comingFree } from '@/usecases/acquiring/comingFree';
import { saveIdeas } from '@/usecases/acquiring/ideas';
import { pointMailAt } from '../../practice/scenario/links';
import { acquiringLedger, strangersHold } from './acquiring';
import { TODAY } from './ledger';
import type { LinkedLedger } from './practice';

let made: LinkedLedger;
beforeEach(async () => {
  made = await acquiringLedger();
  strangersHold(made, 'wrackloft.com');
});
afterEach(() => made.close());

const rows = async (sql: string) => (await made.ledger.database.query(sql)).rows;
const thread = async () => (await approaches(made.ledger))[0];

async function begin(more: Record<string, unknown> = {}): Promise<number> {
  const id = await beginApproach(made.ledger, { name: 'wrackloft.com', currency: 'USD', limitMinor: 50_000, ...more });
  if (isRefusal(id)) throw new Error(id.message);
  return id;
}

/** Agreed on for 450 and fees of 20, to come into the linked account by push. */
async function agreed(): Promise<number> {
  const id = await begin();
  const terms = {
    agreedMinor: 45_000,
    feesMinor: 2000,
    moneyWith: 'Tollhouse',
    arrivesBy: 'push',
    accountId: made.accountId,
  };
  expect(await moveApproach(made.ledger, { id, to: 'agreed', ...terms })).toBe('wrackloft.com');
  return id;
}

describe('a holder is asked', () => {
  test('by a mail of one’s own words, to the contact of the record', async () => {
    const { ledger, practice } = made;
    await pointMailAt(ledger.database, practice.mailPort, 'http://127.0.0.1:1');
    const id = await begin();
    expect(await thread()).toMatchObject({ holder: 'Oda Fennimore', contact: 'names@ketterby.test' });
    const said = {
      id,
      isOurs: true,
      byMail: true,
      text: 'Would you part with it?',
      figureMinor: 30_000,
      answerBy: '2026-12-04',
    };
    expect(await sayApproach(ledger, said)).toBe(true);
    expect(await thread()).toMatchObject({
      answerBy: addDays(TODAY, 11) - (9 * 60 + 12) * 60_000,
      lines: [{ isOurs: true, byMail: true, figureMinor: 30_000, sentAt: TODAY }],
    });
    expect(practice.mails.map(({ to, subject }) => [to, subject])).toContainEqual([
      expect.stringContaining('names@ketterby.test'),
      'About wrackloft.com',
    ]);
  });

  test('a mail server that does not take it: written down, not known to be sent', async () => {
    await pointMailAt(made.ledger.database, 1, 'http://127.0.0.1:1');
    const id = await begin({ contact: 'oda@ketterby.test' });
    expect(await sayApproach(made.ledger, { id, isOurs: true, byMail: true, text: 'Hello' })).toMatchObject({
      code: 'mail-failed',
    });
    expect((await thread())?.lines).toMatchObject([{ byMail: true, sentAt: null, text: 'Hello' }]);
  });

  test('without a mail server, or without an address, it says so', async () => {
    const shown = await begin();
    const mail = { isOurs: true, byMail: true, text: 'Hello' };
    expect(await sayApproach(made.ledger, { ...mail, id: shown })).toMatchObject({ code: 'no-mail-server' });
    await moveApproach(made.ledger, { id: shown, to: 'ended' });
    Object.assign(made.world.domains.get('wrackloft.com') ?? {}, { privacy: true });
    const id = await begin();
    expect(await sayApproach(made.ledger, { id, isOurs: true, byMail: true, text: 'Hello' })).toMatchObject({
      code: 'contact-missing',
    });
    expect((await thread())?.lines).toEqual([]);
    await sayApproach(made.ledger, { id, isOurs: false, text: 'No, thank you', figureMinor: 90_000 });
    expect((await thread())?.lines).toMatchObject([{ isOurs: false, figureMinor: 90_000 }]);
  });

  test('one’s own limit holds, until one says otherwise', async () => {
    const id = await begin();
    expect(await sayApproach(made.ledger, { id, isOurs: true, text: 'More?', figureMinor: 50_001 })).toMatchObject({
      code: 'over-limit',
    });
    const terms = {
      id,
      to: 'agreed',
      agreedMinor: 49_000,
      feesMinor: 2000,
      arrivesBy: 'push',
      accountId: made.accountId,
    };
    expect(await moveApproach(made.ledger, terms)).toMatchObject({ code: 'over-limit' });
    expect(await moveApproach(made.ledger, { ...terms, isOverLimit: true })).toBe('wrackloft.com');
  });

  test('own names are not asked for, and nobody is asked twice at once', async () => {
    expect(await beginApproach(made.ledger, { name: 'copperbuoy.com', currency: 'USD' })).toMatchObject({
      code: 'name-known',
    });
    await begin();
    expect(await beginApproach(made.ledger, { name: 'wrackloft.com', currency: 'USD' })).toMatchObject({
      code: 'approach-open',
    });
  });
});

describe('bought from its holder', () => {
  test('agreed, paid, arrived: in the ledger, its cost booked from the day it was paid', async () => {
    const { ledger, world } = made;
    const id = await agreed();
    await moveApproach(ledger, { id, to: 'paid', paidOn: '2026-11-20', reference: 'T-9' });
    // Not pushed yet: the registrar does not have it with us.
    expect(await moveApproach(ledger, { id, to: 'arrived' })).toMatchObject({ code: 'not-arrived' });
    expect(await rows('select count(*) as n from entries')).toEqual([{ n: 0 }]);
    Object.assign(world.domains.get('wrackloft.com') ?? {}, { registrar: 'quaymark', owner: 'office' });
    expect(await moveApproach(ledger, { id, to: 'arrived' })).toBe('wrackloft.com');
    expect(await rows('select kind, minor, on_day as day, reference from entries order by minor desc')).toEqual([
      { kind: 'bought', minor: 45_000, day: '2026-11-20', reference: 'T-9' },
      { kind: 'other', minor: 2000, day: '2026-11-20', reference: 'T-9' },
    ]);
    expect(await moveApproach(ledger, { id, to: 'arrived' })).toMatchObject({ code: 'approach-unknown' });
    expect(await rows('select count(*) as n from entries')).toEqual([{ n: 2 }]);
    // What is to be looked after is the end of every arrival: lock, auto-renew, the holder's mail.
    expect(await rows('select stage from transfers')).toEqual([{ stage: 'arrived' }]);
  });

  test.each([
    [{ to: 'paid', paidOn: '2027-01-01' }, 'date-out-of-range'],
    [{ to: 'paid' }, 'date-out-of-range'],
    [{ to: 'agreed', agreedMinor: 1 }, 'approach-unknown'],
    [{ to: 'arrived' }, 'approach-unknown'],
  ])('%j makes no sense then', async (move, code) => {
    const id = await agreed();
    expect(await moveApproach(made.ledger, { id, ...move })).toMatchObject({ code });
  });

  test('ended, and begun again', async () => {
    const id = await begin();
    await moveApproach(made.ledger, { id, to: 'ended' });
    expect(await sayApproach(made.ledger, { id, isOurs: false, text: 'too late' })).toMatchObject({
      code: 'approach-unknown',
    });
    expect(await begin()).not.toBe(id);
  });
});

describe('lists of names about to come free', () => {
  const list =
    'Domain,Drop date\nwrackloft.com,2026-12-09\nkelpkiln.com,\nno name,2026-12-09\ncairnbeam.org,2026-02-30\nternwrack.net,2026-11-01\n';

  test('are kept with their source, told by line where they are none, and joined with one’s ideas', async () => {
    const { ledger } = made;
    expect(await bringInComingFree(ledger, list, 'harbour list')).toMatchObject({
      added: 3,
      known: 0,
      refused: [{ line: 4 }, { line: 5 }],
    });
    expect((await comingFree(ledger)).fitting.map(({ ascii }) => ascii)).toEqual(['wrackloft.com', 'kelpkiln.com']);
    await saveIdeas(ledger, null, { ideas: 'wrack', patterns: ['{a}'], endings: ['com'], heldYears: 5 });
    expect(await comingFree(ledger)).toMatchObject({
      listed: 3,
      fitting: [{ ascii: 'wrackloft.com', onDay: '2026-12-09', source: 'harbour list', notedAt: TODAY }],
    });
  });

  test('ideas are read as they are when candidates are made of them: quoted, in punycode, whole names', async () => {
    const { ledger } = made;
    await bringInComingFree(
      ledger,
      'wrackloft.com\nmöwenkai.de\nternbeam.com\nkelpkiln.org\nsloeferry.net',
      'harbour list',
    );
    const ideas = { patterns: ['{a}'], endings: ['com'], heldYears: 5 };
    await saveIdeas(ledger, null, { ...ideas, ideas: '“wrack”, xn--mwe-sna' });
    await saveIdeas(ledger, null, { ...ideas, ideas: 'ternbeam.co.uk' });
    const found = (await comingFree(ledger)).fitting.map(({ unicode }) => unicode);
    expect(found.toSorted()).toEqual(['möwenkai.de', 'ternbeam.com', 'wrackloft.com']);
  });

  test('a newer list replaces what an older one said', async () => {
    await bringInComingFree(made.ledger, list, 'harbour list');
    expect(await bringInComingFree(made.ledger, 'wrackloft.com;2026-12-11', 'town list')).toMatchObject({
      added: 0,
      known: 1,
    });
    expect((await comingFree(made.ledger)).fitting[0]).toMatchObject({ onDay: '2026-12-11', source: 'town list' });
  });

  test('one without a source is refused', async () => {
    expect(await bringInComingFree(made.ledger, list, ' ')).toMatchObject({ code: 'source-missing' });
  });

  test('names that were lost stand beside them', async () => {
    await made.ledger.database.query("update names set gone_at = now() where ascii = 'copperbuoy.com'");
    expect((await comingFree(made.ledger)).lost).toMatchObject([{ ascii: 'copperbuoy.com' }]);
  });
});
