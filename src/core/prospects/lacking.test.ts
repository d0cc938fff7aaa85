import { describe, expect, test } from 'vitest';
import { nameWith, QUAYMARK } from '../ledger/sampleLedger';
import { amount } from '../money';
import type { Day } from '../time';
import { ledgerOf, play, portfolio, STANDING } from './samplePlay';

describe('what is lacking', () => {
  test('a price that nobody knows stops the fan until something stands in for it', () => {
    const names = [
      nameWith('one.com', '2027-03-01T00:00:00Z', { setting: 'on' }),
      nameWith('two.net', '2027-03-01T00:00:00Z', { setting: 'on', ending: 'net' }),
    ];
    const today = ledgerOf(names, { accounts: [{ ...QUAYMARK, balanceMinor: 1e9 }] });
    const { told } = play(today);
    expect(told.fans).toEqual([]);
    expect(told.lacking).toMatchObject({ unpricedCount: 1, balances: [] });
    const assumed = play(today, { paths: 1 }, { unknownPriceMinor: 700, chance: 0 });
    expect(assumed.told.fans).toHaveLength(1);
    expect(assumed.told.costs.reduce((sum, cost) => sum + cost, 0)).toBe(10 * (1138 + 700));
  });

  test('a balance that nobody knows, and a rate into the office’s money', () => {
    const accounts = [
      { ...QUAYMARK, balanceMinor: null },
      { ...QUAYMARK, id: 2, label: 'Wrackgate', currency: 'EUR', balanceMinor: 5000 },
    ];
    expect(play(ledgerOf(portfolio(3), { accounts })).told.lacking).toMatchObject({
      balances: [1],
      currencies: ['EUR'],
    });
    const rates = [{ from: '2026-01-01' as Day, currency: 'EUR', into: 'USD', factor: 1.1 }];
    const { told } = play(
      ledgerOf(portfolio(3), { accounts, rates }),
      { paths: 1 },
      { unknownBalanceMinor: 2000, cashMinor: 300 },
    );
    expect(told.lacking.balances).toEqual([]);
    expect(told.openingMinor).toBe(2000 + 5500 + 300);
  });

  test('what stands in for a price does not stand in for a rate', () => {
    const accounts = [
      { ...QUAYMARK, balanceMinor: 1e9 },
      { ...QUAYMARK, id: 2, currency: 'EUR', balanceMinor: 5000 },
    ];
    const { told } = play(ledgerOf(portfolio(3), { accounts }), {}, { unknownPriceMinor: 700, unknownBalanceMinor: 1 });
    expect(told.fans).toEqual([]);
    expect(told.lacking).toMatchObject({ unpricedCount: 0, balances: [], currencies: ['EUR'] });
  });

  test('a name that is left today lacks a price only where it is thought of being kept', () => {
    const names = [
      nameWith('one.com', '2027-03-01T00:00:00Z', { setting: 'on' }),
      nameWith('two.net', '2027-03-01T00:00:00Z', { setting: 'off', ending: 'net' }),
    ];
    const today = ledgerOf(names, { accounts: [{ ...QUAYMARK, balanceMinor: 1e9 }] });
    expect(play(today).told.lacking.unpricedCount).toBe(0);
    const kept = play(today, { strategies: [STANDING, { label: 'all', strategy: { kind: 'keep all' } }] }).told;
    expect(kept).toMatchObject({ fans: [], lacking: { unpricedCount: 1 } });
  });

  test('what is left out is counted: no end, no setting, no rate for what is asked', () => {
    const names = [
      nameWith('endless.com', null),
      nameWith('unsure.com', '2027-03-01T00:00:00Z', { setting: 'unknown' }),
      nameWith('foreign.com', '2027-03-01T00:00:00Z', { asking: amount(100_000, 'JPY') }),
    ];
    expect(play(ledgerOf(names)).told.lacking).toMatchObject({ noEnd: 1, noSetting: 1, noRate: 1 });
  });
});
