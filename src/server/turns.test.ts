import { expect, test } from 'vitest';
import { Turns } from './turns';

test('so many at once, the others in their order, and a turn ends once', async () => {
  const turns = new Turns(2);
  const order: number[] = [];
  const ends = await Promise.all([turns.take(), turns.take()]);
  const later = [1, 2, 3].map((n) =>
    turns.take().then((end) => {
      order.push(n);
      return end;
    }),
  );
  expect(turns.waiting).toBe(3);
  ends[0]?.();
  ends[0]?.();
  await later[0];
  expect(order).toEqual([1]);
  ends[1]?.();
  (await later[0])?.();
  for (const end of await Promise.all(later)) end();
  expect([order, turns.waiting]).toEqual([[1, 2, 3], 0]);
  const again = await turns.take();
  again();
});
