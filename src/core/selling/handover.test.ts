import { describe, expect, test } from 'vitest';
import { dueAt, hasFailed, nextStages, refuseStage, turnAt } from '@/core/selling';
import { addDays, instant } from '@/core/time';

const NOW = instant('2026-11-24T09:12:00Z');

describe('the handover', () => {
  test('from stage to stage, whose turn and by when', () => {
    expect([turnAt('agreed'), turnAt('money held'), turnAt('buyer known'), turnAt('arrived'), turnAt('done')]).toEqual([
      'buyer',
      'buyer',
      'owner',
      'marketplace',
      'nobody',
    ]);
    expect(dueAt('buyer known', NOW)).toBe(addDays(NOW, 3));
    expect(dueAt('done', NOW)).toBeNull();
    expect(refuseStage('agreed', 'money held')).toBeNull();
    expect(refuseStage('agreed', 'handed over')).toMatchObject({ code: 'stage-out-of-order' });
    expect(refuseStage('done', 'dispute')).toMatchObject({ code: 'stage-out-of-order' });
    expect(nextStages('dispute')).toContain('arrived');
    expect(hasFailed('not paid')).toBe(true);
    expect(hasFailed('dispute')).toBe(false);
  });
});
