import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { indexRules, LedgerDay, type LedgerName, lifecycleStrip, projectLedger, rowsOn, totalsOf } from '@/core/ledger';
import { amount } from '@/core/money';
import { addDays, formatInstant, type Instant, instant } from '@/core/time';
import { GENERIC, nameWith, QUAYMARK, rulesWith, TODAY } from './sampleLedger';

const rowOf = (name: LedgerName, rules = rulesWith(), day: Instant = TODAY) =>
  rowsOn(projectLedger(indexRules(rules), [name], TODAY), day)(0);
const deadline = (name: LedgerName, rules = rulesWith(), day: Instant = TODAY) => {
  const found = rowOf(name, rules, day).deadline;
  return (
    found && `${formatInstant(found.at)} ${found.kind} ${found.before?.minor ?? '-'} > ${found.after?.minor ?? '-'}`
  );
};

describe('the deadline: ordinary renewal → late fee → restore and a year → lost', () => {
  test('a stalled name in its late window, eighteen days past its term (the example of the interface)', () => {
    const row = rowOf(nameWith('kelpkiln.com', '2026-11-06T10:15:00Z', { setting: 'stalled' }));
    expect(row.phase).toBe('late');
    expect(
      row.marks &&
        [row.marks.termEnd, row.marks.deletion, row.marks.redemptionEnd, row.marks.release].map(formatInstant),
    ).toEqual(['2026-11-06T10:15:00Z', '2026-12-21T10:15:00Z', '2027-01-20T10:15:00Z', '2027-01-25T10:15:00Z']);
    expect(row.deadline).toEqual({
      at: instant('2026-12-21T10:15:00Z'),
      kind: 'restore',
      before: amount(1138, 'USD'),
      after: amount(12_518, 'USD'),
      ruleOfThumb: true,
    });
  });

  test.each([
    ['in term, off', '2026-12-09T00:00:00Z', '2027-01-23T00:00:00Z restore 1138 > 12518'],
    ['in redemption', '2026-09-14T00:00:00Z', '2026-11-28T00:00:00Z lost 12518 > -'],
    ['in deletion', '2026-09-08T00:00:00Z', null],
    ['available', '2026-08-01T00:00:00Z', null],
  ])('%s', (_what, expires, expected) => {
    expect(deadline(nameWith('seaholly.com', expires))).toBe(expected);
  });

  test('a late fee is a deadline of its own at the end of the term', () => {
    const rules = rulesWith({ accounts: [{ ...QUAYMARK, lateFeeMinor: 350 }] });
    expect(deadline(nameWith('a.com', '2026-12-09T00:00:00Z'), rules)).toBe(
      '2026-12-09T00:00:00Z late fee 1138 > 1488',
    );
    expect(deadline(nameWith('a.com', '2026-11-20T00:00:00Z'), rules)).toBe(
      '2027-01-04T00:00:00Z restore 1488 > 12518',
    );
  });

  test('an account that auctions late names loses them from that day', () => {
    const rules = rulesWith({ accounts: [{ ...QUAYMARK, auctionDay: 30 }] });
    expect(deadline(nameWith('a.com', '2026-11-20T00:00:00Z'), rules)).toBe('2026-12-20T00:00:00Z auction 1138 > -');
  });

  test('where an ending knows no redemption, the end of the late window is the loss', () => {
    const rules = rulesWith({
      policies: [GENERIC, { ...GENERIC, ending: 'com', lateDays: 90, redemptionDays: 0, pendingDeleteDays: 0 }],
      accounts: [{ ...QUAYMARK, lateDays: 90 }],
    });
    expect(deadline(nameWith('a.com', '2026-11-20T00:00:00Z'), rules)).toBe('2027-02-18T00:00:00Z lost 1138 > -');
  });

  test('a coming charge that will pass is the deadline, and nothing gets dearer', () => {
    expect(deadline(nameWith('a.com', '2026-12-09T00:00:00Z', { setting: 'on' }))).toBe(
      '2026-12-04T00:00:00Z charge 1138 > -',
    );
  });

  test('a coming charge that will fail leaves the steps of a name nobody renews', () => {
    const rules = rulesWith({ accounts: [{ ...QUAYMARK, balanceMinor: 500 }] });
    const row = rowOf(nameWith('a.com', '2026-12-09T00:00:00Z', { setting: 'on' }), rules);
    expect(row.outlook).toMatchObject({
      kind: 'charge fails',
      charge: { cause: { kind: 'balance short', missing: amount(638, 'USD') } },
    });
    expect(row.deadline).toMatchObject({ kind: 'restore', at: instant('2027-01-23T00:00:00Z') });
  });

  test('without a known price nothing is invented', () => {
    const row = rowOf(nameWith('a.com', '2026-12-09T00:00:00Z'), rulesWith({ prices: [] }));
    expect(row.deadline).toMatchObject({ before: null, after: null });
    expect(row.costs).toMatchObject({ renewal: null, perYear: null });
  });

  test('a name’s own price outranks the ending’s', () => {
    const own = nameWith('dear.com', '2026-12-09T00:00:00Z');
    const rules = rulesWith();
    const premium = {
      ...rules,
      prices: [
        ...rules.prices,
        { ...rules.prices[0], nameId: own.id, yearMinor: 9900 } as (typeof rules.prices)[number],
      ],
    };
    expect(rowOf(own, premium).deadline?.before).toEqual(amount(9900, 'USD'));
  });

  test('a name whose end nobody has said has no phase, and says so', () => {
    expect(rowOf(nameWith('a.com', null))).toMatchObject({
      phase: null,
      marks: null,
      deadline: null,
      outlook: { kind: 'unknown' },
    });
  });
});

describe('moving the date', () => {
  const funded = nameWith('a.com', '2026-12-09T00:00:00Z', { setting: 'on' });

  test('a name whose charge passes has a later end and has cost more', () => {
    const projection = projectLedger(indexRules(rulesWith()), [funded], TODAY);
    const day = instant('2027-02-01T00:00:00Z');
    const row = rowsOn(projection, day)(0);
    expect(row).toMatchObject({ phase: 'term', termEnd: { at: instant('2027-12-09T00:00:00Z') } });
    expect(totalsOf(new LedgerDay(projection, day), Int32Array.of(0)).spent).toEqual([amount(1138, 'USD')]);
  });

  test('a name whose charge fails is stalled, then late, then in redemption, then available', () => {
    const rules = rulesWith({ accounts: [{ ...QUAYMARK, balanceMinor: 500 }] });
    const phases = ['2026-12-05', '2026-12-20', '2027-02-01', '2027-02-23', '2027-03-05'].map((day) => {
      const row = rowOf(funded, rules, instant(`${day}T00:00:00Z`));
      return `${row.setting} ${row.phase}`;
    });
    expect(phases).toEqual([
      'stalled term',
      'stalled late',
      'stalled redemption',
      'stalled pending delete',
      'stalled available',
    ]);
  });

  test('on today itself only facts count', () => {
    const overdue = nameWith('a.com', '2026-11-26T00:00:00Z', { setting: 'on' });
    expect(rowOf(overdue)).toMatchObject({
      termEnd: { at: instant('2026-11-26T00:00:00Z') },
      outlook: { kind: 'charged', charge: { assumed: true } },
    });
  });
});

const anyName = fc
  .record({
    days: fc.integer({ min: -400, max: 3000 }),
    setting: fc.constantFrom('on', 'off', 'stalled', 'unknown'),
    day: fc.boolean(),
  })
  .map(({ days, setting, day }) => {
    const end = formatInstant(addDays(TODAY, days));
    return nameWith('any.com', day ? end.slice(0, 10) : end, { setting: setting as LedgerName['setting'] });
  });

describe('whatever the name and the day', () => {
  test('the deadline is never earlier than the day, and marks are in order', () => {
    fc.assert(
      fc.property(
        anyName,
        fc.integer({ min: 0, max: 730 }),
        fc.integer({ min: 0, max: 5000 }),
        (name, days, balanceMinor) => {
          const day = addDays(TODAY, days);
          const {
            deadline: found,
            marks,
            phase,
          } = rowOf(name, rulesWith({ accounts: [{ ...QUAYMARK, balanceMinor }] }), day);
          if (!marks) throw new Error('no marks');
          expect(
            marks.termEnd <= marks.deletion &&
              marks.deletion <= marks.redemptionEnd &&
              marks.redemptionEnd <= marks.release,
          ).toBe(true);
          if (found) expect(found.at).toBeGreaterThanOrEqual(day);
          if (phase === 'available' || phase === 'pending delete') expect(found).toBeNull();
        },
      ),
    );
  });

  test('phases partition time: each day has exactly the phase its marks give', () => {
    fc.assert(
      fc.property(anyName, fc.integer({ min: 0, max: 730 }), (name, days) => {
        const day = addDays(TODAY, days);
        const { marks, phase } = rowOf({ ...name, setting: 'off' }, rulesWith(), day);
        if (!marks) throw new Error('no marks');
        const expected =
          day < marks.termEnd
            ? 'term'
            : day < marks.deletion
              ? 'late'
              : day < marks.redemptionEnd
                ? 'redemption'
                : day < marks.release
                  ? 'pending delete'
                  : 'available';
        expect(phase).toBe(expected);
      }),
    );
  });

  test('stretches of a lifecycle strip join without gaps or overlaps', () => {
    fc.assert(
      fc.property(anyName, (name) => {
        const strip = lifecycleStrip(projectLedger(indexRules(rulesWith()), [name], TODAY), 0);
        for (const [i, stretch] of (strip?.stretches ?? []).entries()) {
          expect(stretch.to).toBeGreaterThan(stretch.from);
          const next = strip?.stretches[i + 1];
          // Only the release of a date without a time lies later than its deletion began.
          if (next && next.kind !== 'pending delete') expect(next.from).toBe(stretch.to);
        }
      }),
    );
  });
});

test('a date alone is safe at both ends: refundable no day too long, locked no day too short', () => {
  const day = nameWith('fresh.com', '2027-11-22', { registered: { at: addDays(TODAY, -2), precision: 'day' } });
  const exact = nameWith('other.com', '2027-11-22T00:00:00Z', {
    registered: { at: addDays(TODAY, -2), precision: 'instant' },
  });
  const projection = projectLedger(indexRules(rulesWith()), [day, exact], TODAY);
  const [first, second] = [0, 1].map((place) => rowsOn(projection, TODAY)(place).marks?.refundableUntil ?? 0);
  expect(second).toBe(addDays(TODAY, 3));
  // It may have been registered in the first zone that has that date, fourteen hours before.
  expect(first).toBe(addDays(TODAY, 3) - 14 * 3_600_000);
});
