import { createElement } from 'react';
import { renderToStaticMarkup } from 'react-dom/server';
import { describe, expect, test } from 'vitest';
import { GENERIC, QUAYMARK } from '@/core/ledger/sampleLedger';
import { AccountSentence, MarketplaceSentence, PolicySentence } from './RuleSentences';

const words = (markup: Parameters<typeof renderToStaticMarkup>[0]) =>
  renderToStaticMarkup(markup)
    .replace(/<[^>]+>/g, '')
    .replace(/\s+/g, ' ');

describe('an account in one sentence', () => {
  const balance = { kind: 'balance' as const, label: 'balance', endsMonth: null };
  const card = { kind: 'card' as const, label: 'office card', endsMonth: '2026-10' };
  const account = (more: Partial<typeof QUAYMARK>) =>
    words(createElement(AccountSentence, { account: { ...QUAYMARK, ...more } }));

  test('when it charges, tries again, how long it keeps late names, and from what it pays', () => {
    expect(
      account({
        leadDays: 5,
        retryDays: [2],
        lateDays: 45,
        lateFeeMinor: 0,
        auctionDay: null,
        yearsPerCharge: 1,
        paymentMethods: [balance, card],
      }),
    ).toBe(
      'charges 5 days before the end, tries again 2 days before, keeps late names 45 days, pays from balance, then office card to Oct 2026',
    );
  });

  test('what it does not do is left out, or said where it matters', () => {
    expect(
      account({
        leadDays: 0,
        retryDays: [],
        lateDays: 0,
        lateFeeMinor: 350,
        auctionDay: 30,
        yearsPerCharge: 2,
        paymentMethods: [],
      }),
    ).toBe(
      'charges on the last day, for 2 years, keeps no late names, auctions them on day 30, from what it pays is not known',
    );
    expect(account({ lateDays: 30, lateFeeMinor: 350 })).toContain('keeps late names 30 days, for a fee of $3.50');
    expect(account({ leadDays: 1, retryDays: [1] })).toContain(
      'charges 1 day before the end, tries again 1 day before',
    );
    expect(account({ retryDays: [10, 5] })).toContain('tries again 10 and 5 days before');
  });
});

test('an ending’s policy in one sentence', () => {
  const policy = {
    ...GENERIC,
    lateDays: 45,
    redemptionDays: 30,
    pendingRestoreDays: 7,
    pendingDeleteDays: 5,
    refundableDays: 5,
  };
  expect(words(createElement(PolicySentence, { policy }))).toMatch(
    /^terms of 1 to 10 years, refundable for 5 days, late \(grace period\) for 45 days, redemption for 30 days, the report of a restore due within 7 days, free 5 days after that, a transfer adds 1 year$/,
  );
  expect(
    words(
      createElement(PolicySentence, {
        policy: { ...policy, lateDays: 0, redemptionDays: 0, refundableDays: 0, transferYears: 0 },
      }),
    ),
  ).toMatch(/^terms of 1 to 10 years, no grace period, no redemption, free 5 days after that$/);
});

test('a marketplace in one sentence', () => {
  const hall = {
    currencies: ['USD', 'EUR'],
    auctionDays: [7, 10],
    extensionMinutes: 5,
    reviewHours: 48,
    wholeUnits: true,
  };
  expect(words(createElement(MarketplaceSentence, { marketplace: hall }))).toBe(
    'sells in USD, EUR, whole units only, looks at a listing for up to 48 hours, auctions run 7, 10 days, and a late bid moves the close by 5 minutes',
  );
  expect(
    words(
      createElement(MarketplaceSentence, {
        marketplace: { ...hall, currencies: [], auctionDays: [], wholeUnits: false },
      }),
    ),
  ).toBe('sells in any currency, looks at a listing for up to 48 hours, holds no auctions');
});
