import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import {
  arrange,
  arranged,
  columnsOf,
  EVERY_NAME,
  FLAGS,
  indexRules,
  LedgerDay,
  type LedgerName,
  type LedgerView,
  matchingPlaces,
  NameTable,
  placeBehind,
  projectLedger,
  SORT_KEYS,
  sortedAt,
  totalsOf,
} from '@/core/ledger';
import { amount } from '@/core/money';
import { addDays, endDay, formatInstant } from '@/core/time';
import { GENERIC, nameWith, QUAYMARK, RENEWAL, rulesWith, TODAY } from './sampleLedger';

const WRACKGATE = { ...QUAYMARK, id: 2, label: 'Wrackgate', currency: 'EUR', paymentMethods: [] };
const rules = rulesWith({
  accounts: [QUAYMARK, WRACKGATE],
  policies: [
    GENERIC,
    { ...GENERIC, ending: 'uk', lateDays: 90, redemptionDays: 0, pendingDeleteDays: 0, yearlyFee: false },
  ],
  prices: [RENEWAL, { ...RENEWAL, accountId: 2, currency: 'EUR', yearMinor: 900 }],
});

/** A small portfolio in the order of its names, as the database hands it over. */
const NAMES: readonly LedgerName[] = [
  nameWith('anchorquay.com', '2026-12-09T00:00:00Z', {
    setting: 'on',
    asking: amount(120_000, 'USD'),
    purpose: 'for sale',
    tags: ['coast'],
    spent: [amount(2000, 'USD')],
  }),
  nameWith('bellforge.com', '2026-11-01T00:00:00Z', {
    setting: 'stalled',
    notes: 'Bought at the Harbour fair',
    neverLost: true,
  }),
  nameWith('curlewmill.uk', '2027-03-01T00:00:00Z', {
    ending: 'uk',
    asking: amount(90_000, 'USD'),
    tags: ['craft', 'coast'],
  }),
  nameWith('driftloft.com', '2026-09-20T00:00:00Z', { accountId: 2, spent: [amount(700, 'EUR'), amount(50, 'USD')] }),
  nameWith('eelpress.com', null, { accountId: 2, setting: 'unknown', purpose: 'drop' }),
  nameWith('xn--mwen-5qa.com', '2028-01-01T00:00:00Z', {
    unicode: 'möwen.com',
    setting: 'on',
    accountId: 2,
    asking: amount(5000, 'EUR'),
  }),
];
const projection = projectLedger(indexRules(rules), NAMES, TODAY);
const today = new LedgerDay(projection, TODAY);
const everyPlace = (ledger: LedgerDay) => Int32Array.from({ length: ledger.length }, (_, place) => place);
const all = everyPlace(today);
const shortOf = (place: number) => today.row(place).name.unicode.split('.')[0];
const kept = (view: Partial<LedgerView>) => Array.from(matchingPlaces(today, { ...EVERY_NAME, ...view }), shortOf);
const sorted = (sort: LedgerView['sort'], descending = false) =>
  Array.from(arranged(today, all, { sort, descending }), shortOf);

describe('filters', () => {
  test.each<[string, Partial<LedgerView>, string[]]>([
    ['any part of a name', { text: 'mill' }, ['curlewmill']],
    ['capitals make no difference', { text: 'BELL' }, ['bellforge']],
    ['its own letters', { text: 'möw' }, ['möwen']],
    ['its A-label', { text: 'xn--' }, ['möwen']],
    ['words of its notes', { text: 'harbour fair' }, ['bellforge']],
    ['account', { accountIds: [2] }, ['driftloft', 'eelpress', 'möwen']],
    ['ending', { endings: ['uk'] }, ['curlewmill']],
    ['one of several phases', { phases: ['late', 'redemption'] }, ['bellforge', 'driftloft']],
    ['auto-renew', { settings: ['stalled', 'unknown'] }, ['bellforge', 'eelpress']],
    ['purpose', { purposes: ['drop'] }, ['eelpress']],
    ['any of several tags', { tags: ['craft', 'textile'] }, ['curlewmill']],
    ['deadline within days', { dueWithinDays: 25 }, ['anchorquay', 'bellforge', 'driftloft']],
    ['for sale', { forSale: true }, ['anchorquay']],
    ['not for sale', { forSale: false }, ['bellforge', 'curlewmill', 'driftloft', 'eelpress', 'möwen']],
    ['never to be lost', { neverLost: true }, ['bellforge']],
    ['asking from and to, in the home currency only', { askingFrom: 4000, askingTo: 100_000 }, ['curlewmill']],
    ['cost from', { costFrom: 1138 }, ['anchorquay', 'bellforge']],
    ['several at once', { accountIds: [1], tags: ['coast'], forSale: false }, ['curlewmill']],
    ['nothing', {}, ['anchorquay', 'bellforge', 'curlewmill', 'driftloft', 'eelpress', 'möwen']],
  ])('%s', (_what, view, expected) => {
    expect(kept(view)).toEqual(expected);
  });
});

describe('order', () => {
  test('by deadline, what has none last', () => {
    expect(sorted('deadline').slice(0, 2)).toEqual(['anchorquay', 'driftloft']);
    expect(sorted('deadline').at(-1)).toBe('eelpress');
    expect(sorted('deadline', true).at(-1)).toBe('eelpress');
  });
  test('by name both ways', () => {
    expect(sorted('name')).toEqual(['anchorquay', 'bellforge', 'curlewmill', 'driftloft', 'eelpress', 'möwen']);
    expect(sorted('name', true)).toEqual(['möwen', 'eelpress', 'driftloft', 'curlewmill', 'bellforge', 'anchorquay']);
  });
  test('by account, equal ones by name', () => {
    expect(sorted('account', true)).toEqual([
      'driftloft',
      'eelpress',
      'möwen',
      'anchorquay',
      'bellforge',
      'curlewmill',
    ]);
  });
  test('by asking price, dearest first', () => {
    expect(sorted('asking', true).slice(0, 3)).toEqual(['anchorquay', 'curlewmill', 'möwen']);
  });

  test('every key puts every name exactly once, in an order that does not depend on what came in', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...SORT_KEYS),
        fc.boolean(),
        fc.shuffledSubarray([...all], { minLength: all.length }),
        (sort, descending, shuffled) => {
          const view = { sort, descending };
          expect(arranged(today, Int32Array.from(shuffled), view)).toEqual(arranged(today, all, view));
          expect(new Set(arranged(today, all, view)).size).toBe(all.length);
        },
      ),
    );
  });

  test('pages cut anywhere join to the whole, though the name a page ended with and others are gone by then', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...SORT_KEYS),
        fc.boolean(),
        fc.integer({ min: 1, max: 4 }),
        fc.array(fc.nat({ max: all.length - 1 }), { maxLength: 3 }),
        (sort, descending, size, leaving) => {
          const view = { sort, descending };
          const of = sortedAt(today, view);
          const whole = [...arranged(today, all, view)];
          const walked: number[] = [];
          let left = [...whole];
          const gone = new Set<number>();
          for (let page = 0; ; page += 1) {
            const last = walked.at(-1);
            const start = last === undefined ? 0 : placeBehind(Int32Array.from(left), of(last), view, of);
            const some = left.slice(start, start + size);
            if (some.length === 0) break;
            walked.push(...some);
            // After each page somebody takes one name out, also the one that the page ended with.
            const away = page === 0 ? some.at(-1) : whole[leaving[page - 1] ?? -1];
            if (away !== undefined) gone.add(away);
            left = left.filter((place) => place !== away);
          }
          expect(new Set(walked).size).toBe(walked.length);
          expect(walked.filter((place) => !gone.has(place))).toEqual(whole.filter((place) => !gone.has(place)));
          expect(whole.filter((place) => walked.includes(place))).toEqual(walked);
        },
      ),
    );
  });

  test('a cursor stands where it stood when names come before and behind it', () => {
    const view = { ...EVERY_NAME, sort: 'name' as const };
    const of = sortedAt(today, view);
    expect(placeBehind(all, [null, 'bellzzz.com'], view, of)).toBe(2);
    expect(placeBehind(all, [null, 'a'], view, of)).toBe(0);
    expect(placeBehind(all, [null, 'zz'], view, of)).toBe(all.length);
    expect(placeBehind(new Int32Array(0), [null, 'a'], view, of)).toBe(0);
  });

  test('a long list is ordered by time, ties by name', () => {
    const many = Array.from({ length: 3000 }, (_, i) =>
      nameWith(`n${String(i).padStart(5, '0')}.com`, formatInstant(addDays(TODAY, (i * 7919) % 400))),
    );
    const long = new LedgerDay(projectLedger(indexRules(rules), many, TODAY), TODAY);
    const ordered = arranged(long, everyPlace(long), { sort: 'termEnd', descending: false });
    for (const [i, place] of ordered.entries()) {
      const next = ordered[i + 1];
      if (next === undefined) continue;
      const [a, b] = [long.termEnd[place] as number, long.termEnd[next] as number];
      expect(a < b || (a === b && place < next)).toBe(true);
    }
  });
});

describe('totals', () => {
  test('sums stay within their currencies, and unpriced names are counted', () => {
    expect(totalsOf(today, all)).toEqual({
      names: 6,
      unpriced: 1,
      lost: 0,
      perYear: [amount(2700, 'EUR'), amount(2276, 'USD')],
      renewal: [amount(2700, 'EUR'), amount(2276, 'USD')],
      charged30: [amount(1138, 'USD')],
      charged90: [amount(1138, 'USD')],
      spent: [amount(700, 'EUR'), amount(2050, 'USD')],
      asking: [amount(5000, 'EUR'), amount(210_000, 'USD')],
    });
  });

  test('looking ahead, what was charged by then has been spent', () => {
    const day = addDays(TODAY, 30);
    expect(totalsOf(new LedgerDay(projection, day), all)).toMatchObject({
      spent: [amount(700, 'EUR'), amount(3188, 'USD')],
      charged30: [],
    });
  });

  test('what is lost by a day is counted, and out of every sum but what was spent', () => {
    const day = addDays(TODAY, 700);
    const later = new LedgerDay(projection, day);
    const standing = later.everyRow().filter(({ phase }) => phase !== 'pending delete' && phase !== 'available');
    const whole = totalsOf(later, all);
    const left = totalsOf(
      later,
      Int32Array.from(standing, ({ place }) => place),
    );
    expect(whole.lost).toBe(all.length - standing.length);
    expect(whole.lost).toBeGreaterThan(0);
    expect(whole).toMatchObject({ names: 6, perYear: left.perYear, asking: left.asking, renewal: left.renewal });
    expect(whole.spent.length).toBeGreaterThanOrEqual(left.spent.length);
  });

  test('nothing comes to nothing', () => {
    expect(totalsOf(today, new Int32Array(0))).toEqual({
      names: 0,
      unpriced: 0,
      lost: 0,
      perYear: [],
      renewal: [],
      charged30: [],
      charged90: [],
      spent: [],
      asking: [],
    });
  });
});

test('the first of many that share a key are the first by name, whatever order they come in', () => {
  const names = Array.from({ length: 4000 }, (_, i) =>
    nameWith(`n${String(i).padStart(4, '0')}.com`, formatInstant(addDays(TODAY, i % 3 === 0 ? 10 : 20))),
  );
  const many = new LedgerDay(projectLedger(indexRules(rules), names, TODAY), TODAY);
  const view = { sort: 'termEnd' as const, descending: false };
  const expected = [...everyPlace(many)].sort((a, b) => Number(a % 3 !== 0) - Number(b % 3 !== 0) || a - b);
  for (const places of [everyPlace(many), everyPlace(many).reverse()]) {
    const own = arrange(many, places, view);
    // Fewer than are sorted at once, more, and nearly all.
    for (const to of [3, 700, 1500, 3990]) expect([...own.slice(0, to)]).toEqual(expected.slice(0, to));
  }
});

test('rows looked at a few at a time come in the order of all of them', () => {
  fc.assert(
    fc.property(
      fc.array(fc.integer({ min: 0, max: 40 }), { minLength: 1, maxLength: 400 }),
      fc.array(fc.integer({ min: 0, max: 400 }), { maxLength: 6 }),
      (days, stops) => {
        const names = days.map((day, i) =>
          nameWith(`name${String(i).padStart(3, '0')}.com`, formatInstant(addDays(TODAY, day))),
        );
        const some = new LedgerDay(projectLedger(indexRules(rules), names, TODAY), TODAY);
        const own = arrange(some, everyPlace(some), { sort: 'termEnd', descending: false });
        const expected = some
          .everyRow()
          .sort((a, b) => (a.termEnd?.at ?? 0) - (b.termEnd?.at ?? 0) || a.place - b.place)
          .map(({ place }) => place);
        for (const stop of stops) expect([...own.slice(0, stop)]).toEqual(expected.slice(0, stop));
        expect([...own.slice(0, own.total)]).toEqual(expected);
      },
    ),
    { numRuns: 40 },
  );
});

test('dates sort as they are shown: a date alone among instants, in the office’s zone', () => {
  // In Auckland the second ends on 2 March, after the date alone; in UTC it is the evening before.
  const own = [
    nameWith('a.com', '2027-03-01'),
    nameWith('b.com', '2027-02-28T20:00:00Z'),
    nameWith('c.com', '2027-03-01T12:00:00Z'),
  ];
  const order = (zone: string) => {
    const there = new LedgerDay(projectLedger(indexRules({ ...rules, zone }), own, TODAY), TODAY);
    return there
      .rows(arranged(there, everyPlace(there), { sort: 'termEnd', descending: false }))
      .map(({ name, termEnd }) => [name.ascii, termEnd && endDay(termEnd, zone)]);
  };
  expect(order('UTC').map(([, day]) => day)).toEqual(['2027-02-28', '2027-03-01', '2027-03-01']);
  for (const zone of ['Pacific/Auckland', 'America/Los_Angeles', 'UTC']) {
    const days = order(zone).map(([, day]) => day as string);
    expect(days).toEqual([...days].sort());
  }
});

test('an end that nobody knows is last in every zone, though it is said that only its date is known', () => {
  const columns = columnsOf([nameWith('a.com', null), nameWith('b.com', '2027-03-01')]);
  // As a column of the database may say it of no date at all.
  columns.flags[0] = (columns.flags[0] as number) | (1 << FLAGS.termEndDay.from);
  for (const zone of ['UTC', 'Pacific/Auckland']) {
    const there = new LedgerDay(projectLedger(indexRules({ ...rules, zone }), new NameTable(columns), TODAY), TODAY);
    expect([...arranged(there, everyPlace(there), { sort: 'termEnd', descending: false })]).toEqual([1, 0]);
  }
});
