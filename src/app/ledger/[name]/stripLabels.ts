import type { Amount } from '@/core/money';
import { bestMoment, lastMoment, type MovingFacts } from '@/core/moving';
import type { Instant } from '@/core/time';
import { formatAmount } from '@/ui/text/figures';
import { causeWords, type DayStyle, dayWords, restoreWords, termEndWords, untilWords } from '@/ui/text/words';
import type { RowView } from '../../frame/views';

/** What is written at one step of the large strip. */
export interface StripLabel {
  readonly key: string;
  readonly at: Instant;
  readonly title: string;
  readonly text: string;
  readonly caution: boolean;
}

const money = (amount: Amount | null) => (amount ? formatAmount(amount) : 'price not known');

/** The steps of a name's life from its coming charge to its release, in order, with what each costs. */
export function stripLabels(row: RowView, style: DayStyle): StripLabel[] {
  const { marks, coming, costs } = row;
  if (!marks) return [];
  if (coming) {
    const fails = coming.outcome === 'fail';
    const charge = {
      key: 'charge',
      at: coming.at,
      caution: fails,
      title: `${dayWords(coming.at, style)} ${fails ? 'charge fails' : 'charged'}`,
      text:
        fails && coming.cause
          ? causeWords(coming.cause)
          : `${money(coming.cost)}${coming.paymentMethod ? ` from ${coming.paymentMethod}` : ''}`,
    };
    return fails ? [charge, ...lapseLabels(row, style)] : [charge];
  }
  if (row.phase === 'pending restore' && marks.restoreReportDue !== null) {
    return [
      {
        key: 'report',
        at: marks.restoreReportDue,
        caution: true,
        title: `${untilWords(marks.restoreReportDue, style)} last day for the report`,
        text: `else restore again, ${restoreWords(costs)}`,
      },
    ];
  }
  return lapseLabels(row, style);
}

/** The day from which a transfer is best requested, while that lies ahead; else the last one, while that does. */
export function movingLabels(facts: MovingFacts, asOf: Instant, style: DayStyle): StripLabel[] {
  const best = bestMoment(facts, asOf);
  if (best === null) return [];
  const last = lastMoment(facts);
  const label = (key: string, at: Instant, title: string, text: string) => [
    { key, at, title: `${dayWords(at, style)} ${title}`, text, caution: false },
  ];
  if (best > asOf) return label('best to transfer', best, 'best day to transfer', 'to another registrar');
  return last === null || last <= asOf
    ? []
    : label(
        'last to transfer',
        last,
        'last day to transfer',
        facts.chargeAt === null ? 'before the term ends' : 'before the charge',
      );
}

function lapseLabels({ marks, costs, termEnd }: RowView, style: DayStyle): StripLabel[] {
  if (!marks) return [];
  const labels: StripLabel[] = [];
  const add = (key: string, at: Instant, title: string, text: string, caution: boolean, day = dayWords(at, style)) =>
    labels.push({ key, at, title: `${day} ${title}`, text, caution });
  const isLate = marks.deletion > marks.termEnd;
  const isRestorable = marks.redemptionEnd > marks.deletion;
  add(
    'end',
    marks.termEnd,
    'term ends',
    isLate
      ? `late renewal ${money(costs.lateRenewal)}`
      : isRestorable
        ? `restore and a year ${restoreWords(costs)}`
        : 'lost',
    !isLate,
    termEnd ? termEndWords(termEnd, style) : undefined,
  );
  if (marks.auction !== null) add('auction', marks.auction, 'auctioned away', 'lost if somebody bids', true);
  // Each deadline stands under its last good day, as everywhere else: one set of dates.
  if (isLate)
    add(
      'deletion',
      marks.deletion,
      'last day to renew late',
      isRestorable ? `then restore and a year ${restoreWords(costs)}` : 'then lost',
      true,
      untilWords(marks.deletion, style),
    );
  if (isRestorable)
    add(
      'redemption ends',
      marks.redemptionEnd,
      'last day to restore',
      'then lost',
      true,
      untilWords(marks.redemptionEnd, style),
    );
  if (marks.release > marks.redemptionEnd || isRestorable)
    add('release', marks.release, 'available', 'for anyone, at the earliest', false);
  return labels;
}
