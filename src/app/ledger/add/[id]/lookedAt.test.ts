import { expect, test } from 'vitest';
import type { ImportSummary } from '@/usecases/imports/preview';
import { lookedAt } from './lookedAt';

type Status = ImportSummary['row']['status'];
const summary = (status: Status, rowsDone: number, sheet: string) =>
  ({ row: { status, rowsDone, options: { sheet } }, counts: {} }) as unknown as ImportSummary;

test.each<[Status, Status, boolean, Status, number, string]>([
  // It goes on: only how far it is.
  ['reading', 'reading', true, 'reading', 20, 'ours'],
  ['writing', 'writing', false, 'writing', 20, 'ours'],
  // It has ended: as it is there.
  ['reading', 'ready', true, 'ready', 20, 'theirs'],
  ['reading', 'failed', true, 'failed', 20, 'theirs'],
  ['writing', 'done', false, 'done', 20, 'theirs'],
  // On its way, or lost there: what was said of it is kept.
  ['reading', 'asking', true, 'reading', 10, 'ours'],
  ['reading', 'asking', false, 'asking', 10, 'ours'],
  // A look that comes late changes nothing.
  ['ready', 'reading', false, 'ready', 10, 'ours'],
  ['ready', 'asking', false, 'ready', 10, 'ours'],
  ['asking', 'reading', false, 'asking', 10, 'ours'],
  ['done', 'writing', false, 'done', 10, 'ours'],
])('%s, seen as %s, asked %s: %s', (shown, seen, isAsked, status, rowsDone, sheet) => {
  expect(lookedAt(summary(shown, 10, 'ours'), summary(seen, 20, 'theirs'), isAsked).row).toMatchObject({
    status,
    rowsDone,
    options: { sheet },
  });
});
