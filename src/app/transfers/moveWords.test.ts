import { describe, expect, test } from 'vitest';
import { MOVE_EXITS, MOVE_STAGES, type MoveStage, turnOfMove } from '@/core/moving';
import { STAGE_WORDS } from '@/ui/text/movingWords';
import { EXIT_WORDS, sumWords, TURN_WORDS, todoWords } from './moveWords';

const todoAt = (stage: MoveStage, links: { losing: boolean; gaining: boolean }) =>
  todoWords({ stage, turn: turnOfMove(stage, links), from: 'Quaymark', to: 'Larkhythe', links });
const BY_HAND = { losing: false, gaining: false };

describe('what a person has to do, and where', () => {
  test('nothing where both accounts have a link, but for the price that has to come back', () => {
    const todo = MOVE_STAGES.flatMap((stage) => todoAt(stage, { losing: true, gaining: true }) ?? []);
    expect(todo).toEqual(['Say when its price has come back from Larkhythe.']);
  });

  test('by hand at both sides every step is said, with the registrar at which it is done', () => {
    const words = Object.fromEntries(MOVE_STAGES.map((stage) => [stage, todoAt(stage, BY_HAND)]));
    expect(words.funded).toBe('Switch auto-renew off at Quaymark.');
    expect(words['auto-renew off']).toBe('Take the lock off at Quaymark.');
    // What the new registrar wants to know is asked before the code, which lapses.
    expect(words.unlocked).toMatch(/^Give Larkhythe the holder’s data .* then have Quaymark give the transfer code/);
    expect(words['code held']).toBe('Request the transfer at Larkhythe with the code.');
    expect(words.pending).toBe('Look at Larkhythe whether it has arrived.');
    expect(words.arrived).toMatch(/^Put the lock on at Larkhythe/);
    expect(words['going back']).toMatch(/^Put it back as it was at Quaymark/);
    expect([words.closed, words['given up'], words.planned]).toEqual([null, null, null]);
  });

  test('the new account by hand: the program does what the old one needs', () => {
    const links = { losing: true, gaining: false };
    expect(['funded', 'auto-renew off', 'unlocked'].map((stage) => todoAt(stage as MoveStage, links))).toEqual([
      null,
      null,
      null,
    ]);
    expect(todoAt('code held', links)).toBe('Request the transfer at Larkhythe with the code.');
  });
});

test('the sum that is expected is said with a code and without', () => {
  const sum = { quotedMinor: 1138, withCode: null, currency: 'USD' };
  expect(sumWords(sum)).toBe('$11.38 by its price list, which knows of no code');
  expect(sumWords({ ...sum, withCode: { code: 'SPRING', minor: 990 } })).toBe(
    '$11.38 by its price list, $9.90 with the code SPRING',
  );
  expect(sumWords({ ...sum, quotedMinor: null })).toBe('no price list says what it costs');
});

test('every stage, way out and turn has words of its own', () => {
  for (const [known, words] of [
    [MOVE_STAGES, STAGE_WORDS],
    [MOVE_EXITS, EXIT_WORDS],
  ] as const)
    expect(new Set(Object.values(words)).size).toBe(known.length);
  expect(new Set(Object.values(TURN_WORDS)).size).toBe(7);
});
