import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { SALE_EXITS, SALE_STAGES, THREAD_STATES } from '../selling';
import { addDays, instant } from '../time';
import { type BuyerFigure, type BuyerView, buyerActs, buyerState, isOver, newsFor, standingSaid } from './buyer';
import { LANGUAGES } from './languages';

const NOW = instant('2026-11-28T12:00:00Z');
const figure = (id: number, by: 'buyer' | 'owner', more: Partial<BuyerFigure> = {}): BuyerFigure => ({
  id,
  by,
  minor: 40_000,
  at: NOW,
  lapsesAt: null,
  state: 'live',
  ...more,
});
const view = (more: Partial<BuyerView> = {}): BuyerView => ({
  name: 'copperbuoy.com',
  kind: 'offer',
  currency: 'USD',
  minor: 40_000,
  message: '',
  confirmed: true,
  confirmUntil: addDays(NOW, 7),
  thread: { state: 'open', figures: [figure(1, 'buyer')] },
  bid: null,
  sale: null,
  forSale: true,
  now: NOW,
  ...more,
});
const bid = (more: Partial<NonNullable<BuyerView['bid']>> = {}): BuyerView =>
  view({
    kind: 'bid',
    thread: null,
    bid: {
      placedMinor: 40_000,
      depositMinor: 0,
      heldMinor: 0,
      refused: null,
      priceMinor: 30_000,
      leastMinor: 31_000,
      leads: true,
      closesAt: addDays(NOW, 2),
      ended: 'no',
      ...more,
    },
  });
const sale = (stage: NonNullable<BuyerView['sale']>['stage']) =>
  view({ sale: { stage, priceMinor: 50_000, currency: 'USD', handover: 'push', registrar: 'Quaymark' } });

const CASES: readonly (readonly [string, BuyerView, string, readonly string[]])[] = [
  ['not confirmed', view({ confirmed: false, thread: null }), 'asked', ['confirm']],
  ['too late to confirm', view({ confirmed: false, thread: null, now: addDays(NOW, 7) }), 'link over', []],
  ['with the office', view(), 'with us', ['counter', 'withdraw']],
  [
    'answered',
    view({ thread: { state: 'open', figures: [figure(2, 'owner')] } }),
    'your turn',
    ['accept', 'counter', 'decline'],
  ],
  [
    'answered, and lapsed',
    view({ thread: { state: 'open', figures: [figure(2, 'owner', { lapsesAt: NOW })] } }),
    'lapsed',
    ['counter'],
  ],
  [
    'promised elsewhere',
    view({ thread: { state: 'waiting', figures: [figure(1, 'buyer')] } }),
    'promised',
    ['withdraw'],
  ],
  [
    'declined',
    view({ thread: { state: 'declined', figures: [figure(1, 'buyer', { state: 'declined' })] } }),
    'declined',
    ['counter'],
  ],
  ['declined, the name gone', view({ forSale: false, thread: { state: 'declined', figures: [] } }), 'declined', []],
  ['withdrawn', view({ thread: { state: 'withdrawn', figures: [] } }), 'withdrawn', []],
  ['leading', bid(), 'leads', ['raise']],
  ['outbid', bid({ leads: false }), 'outbid', ['raise']],
  ['waiting for a deposit', bid({ placedMinor: null, depositMinor: 4_000, leads: false }), 'deposit wanted', ['raise']],
  ['refused', bid({ placedMinor: null, refused: 'bid-too-low', leads: false }), 'bid refused', ['raise']],
  ['lost', bid({ leads: false, ended: 'sold' }), 'lost', []],
  ['unsold', bid({ ended: 'unsold' }), 'unsold', []],
  ['agreed', sale('agreed'), 'sale', []],
  ['paid', sale('money held'), 'sale', ['where']],
  ['handed over', sale('handed over'), 'sale', ['arrived']],
  ['done', sale('done'), 'sale', []],
];

test.each(CASES)('%s: how it stands and what may be done', (_, of, state, acts) => {
  expect(buyerState(of)).toBe(state);
  expect(buyerActs(of)).toEqual(acts);
});

test.each(CASES)('%s is said in every language, with nothing left open', (_, of) => {
  for (const [language, texts] of Object.entries(LANGUAGES)) {
    const said = standingSaid(of, texts, language as keyof typeof LANGUAGES);
    expect(said.trim()).not.toBe('');
    expect(said).not.toMatch(/\{\w+\}|undefined|NaN/);
  }
});

describe('news', () => {
  const key = (of: BuyerView, told: string | null = null) => newsFor(of, told)?.key ?? null;

  test('what a buyer does himself is no news to him', () => {
    expect(key(view())).toBeNull();
    expect(key(view({ thread: { state: 'withdrawn', figures: [] } }))).toBeNull();
    expect(
      key(view({ thread: { state: 'declined', figures: [figure(2, 'owner', { state: 'declined' })] } })),
    ).toBeNull();
    expect(key(sale('buyer known'))).toBeNull();
    expect(key(sale('arrived'))).toBeNull();
    expect(key(bid())).toBeNull();
  });

  test('each is told once, and the next of its kind again', () => {
    const answered = (id: number) => view({ thread: { state: 'open', figures: [figure(id, 'owner')] } });
    expect(key(answered(2))).toBe('figure 2');
    expect(key(answered(2), 'figure 2')).toBeNull();
    expect(key(answered(4), 'figure 2')).toBe('figure 4');
    const outbid = (placedMinor: number, priceMinor: number) => bid({ leads: false, placedMinor, priceMinor });
    expect(key(outbid(40_000, 50_000))).toBe('outbid 40000');
    // While the others go on bidding he is not told of each step.
    expect(key(outbid(40_000, 70_000), 'outbid 40000')).toBeNull();
    expect(key(outbid(80_000, 90_000), 'outbid 40000')).toBe('outbid 80000');
  });

  test('a name that was promised elsewhere and is free again is told', () => {
    expect(key(view(), 'promised')).toBe('with us');
    expect(key(view(), 'with us')).toBeNull();
  });

  test('before anything is confirmed there is one mail, whatever the state says besides', () => {
    fc.assert(
      fc.property(fc.constantFrom(...THREAD_STATES), fc.option(fc.string()), (state, told) => {
        const of = view({ confirmed: false, thread: { state, figures: [figure(3, 'owner')] } });
        const news = newsFor(of, told);
        expect(news === null ? told : news.key).toBe('confirm');
      }),
    );
  });

  test('a sale that has ended has no more of it', () => {
    for (const stage of [...SALE_STAGES, ...SALE_EXITS])
      expect(isOver(sale(stage))).toBe(['done', 'not paid', 'refused'].includes(stage));
  });
});
