import { indexRules, keepingCosts } from '@/core/ledger';
import { lifecycleMarks, policyFor } from '@/core/lifecycle';
import { type CostStretch, costsByDay, type LapseEvent, timelineOf } from '@/core/rescue';
import { addDays, dayOf, earliestEnd, type Instant } from '@/core/time';
import { selectHistory } from '@/database/changes';
import { selectLapsedName, selectMessagesOf, selectSentReminders } from '@/database/lapses';
import { selectLedgerRules } from '@/database/ledger';
import type { Deps } from '../deps';

/** A look back at a lapse: what happened in order, and what keeping the name would have cost on each day. */
export interface Lapse {
  readonly events: readonly LapseEvent[];
  readonly costs: readonly CostStretch[];
}

/** How long before the end of the term a look back begins, in days: the longest usual lead of a reminder. */
const LOOK_BACK_DAYS = 60;

const FAILURES = new Set([
  'charge-failed',
  'deleted',
  'redemption-ended',
  'released',
  'auctioned',
  'restore-overdue',
  'suspended',
]);

/** How a name came to lapse, from history; `null` for a name whose term has not ended. */
export async function lapseOf(deps: Deps, nameId: number): Promise<Lapse | null> {
  const name = await selectLapsedName(deps.database, nameId);
  if (!name?.termEnd || earliestEnd(name.termEnd) > deps.clock()) return null;
  if (name.goneAt !== null && name.goneAt < earliestEnd(name.termEnd)) return null;
  const from = addDays(earliestEnd(name.termEnd), -LOOK_BACK_DAYS);
  const [rules, history, reminders, messages] = await Promise.all([
    selectLedgerRules(deps.database),
    selectHistory(deps.database, nameId),
    selectSentReminders(deps.database, nameId),
    selectMessagesOf(deps.database, name.ascii, from),
  ]);
  const index = indexRules(rules);
  const account = index.accounts.get(name.accountId) ?? { lateDays: 0, auctionDay: null };
  const marks = lifecycleMarks(
    { registeredAt: name.registered, termEnd: name.termEnd, observed: name.observed },
    policyFor(name.ending, index.policies),
    account,
  );
  const costs = costsByDay(from, marks, keepingCosts(index, name, dayOf(marks.termEnd)));
  const now = deps.clock();
  const events: LapseEvent[] = [
    ...reminders.filter(({ firstAt }) => firstAt >= from).map(reminderEvent),
    ...messages.map(
      ({ at, kind, text }) => ({ at, kind: FAILURES.has(kind ?? '') ? 'failure' : 'act', text }) as const,
    ),
    ...[...history]
      .reverse()
      .filter(({ at, kind, before, undone }) => at >= from && kind !== 'message' && before !== null && !undone)
      .map(({ at, summary }) => ({ at, kind: 'act' as const, text: `${summary}.` })),
    ...costs.slice(1).flatMap((stretch) => stepEvent(stretch, now)),
  ];
  return { events: timelineOf(events), costs };
}

function reminderEvent({
  firstAt,
  lastAt,
  times,
  kind,
  acknowledgedAt,
}: Awaited<ReturnType<typeof selectSentReminders>>[number]): LapseEvent {
  const often = times === 1 ? '' : ` ${times} times, last on ${dayOf(lastAt)}`;
  const seen = acknowledgedAt === null ? 'Nobody has said that it was seen.' : `Seen on ${dayOf(acknowledgedAt)}.`;
  return { at: firstAt, kind: 'warning', text: `Reminded by mail (${kind})${often}. ${seen}` };
}

const STEP_WORDS: Readonly<Record<CostStretch['by'], string>> = {
  renewal: '',
  'late renewal': 'The term ended.',
  restore: 'The late window (grace period) ended: deleted, a restore from here on.',
  nothing: 'Redemption ended: nothing could be done from here on.',
};

function stepEvent({ from, by }: CostStretch, now: Instant): LapseEvent[] {
  return from > now ? [] : [{ at: from, kind: 'step', text: STEP_WORDS[by] }];
}
