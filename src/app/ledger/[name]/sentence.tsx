import type { ReactNode } from 'react';
import type { Amount } from '@/core/money';
import type { Instant } from '@/core/time';
import { formatAmount } from '@/ui/text/figures';
import { causeWords, type DayStyle, daysToEnd, dayWords, termEndWords, untilWords } from '@/ui/text/words';
import type { RowView } from '../../frame/views';

const money = (amount: Amount | null) => (amount ? formatAmount(amount) : 'a price not known');

/** Where a name stands and what comes next, in one or two sentences: on which date, for how much. */
export function standingSentence(row: RowView, account: string, day: Instant, style: DayStyle): ReactNode {
  const { phase, marks, termEnd, coming, costs, name, failed } = row;
  const at = name.registered
    ? `Registered ${termEndWords(name.registered, style)}, now at ${account}.`
    : `At ${account}.`;
  if (!phase || !marks || !termEnd) return `Nobody has said when its term ends. Set it under Edit. ${at}`;
  if (coming?.outcome === 'fail') {
    return (
      <>
        Auto-renew will be tried on {dayWords(coming.at, style)} and{' '}
        <span className="caution">fails ({coming.cause ? causeWords(coming.cause) : 'no means'})</span>. Then it lapses
        on {termEndWords(termEnd, style)}. {at}
      </>
    );
  }
  if (coming) {
    const assumed = coming.assumed ? ', as far as is known' : '';
    return `In term until ${termEndWords(termEnd, style)}. Auto-renew charges ${money(coming.cost)} on ${dayWords(coming.at, style)}${assumed}. ${at}`;
  }
  const why = failed?.cause ? ` (${causeWords(failed.cause)})` : '';
  const restore = `${money(costs.restore)}${costs.restoreRuleOfThumb ? ', by rule of thumb' : ''}`;
  switch (phase) {
    case 'refundable':
    case 'term':
    case 'moving':
      return `Lapses ${termEndWords(termEnd, style)}. ${marks.deletion > marks.termEnd ? `Late renewal ${money(costs.renewal)} until ${untilWords(marks.deletion, style)}, then ` : 'Then '}${
        marks.purge > marks.deletion ? `restore and a year ${restore}.` : 'it is lost.'
      } ${at}`;
    case 'late':
      return `Past its term for ${-daysToEnd(termEnd, day, style)} days${why}. Late renewal ${money(costs.renewal)} until ${untilWords(marks.deletion, style)}, then ${
        marks.purge > marks.deletion ? `restore and a year ${restore}` : 'it is lost'
      }. ${at}`;
    case 'redemption':
      return (
        <>
          <span className="caution">In redemption.</span> Restore and a year {restore} until{' '}
          {untilWords(marks.purge, style)}, then it is lost. {at}
        </>
      );
    case 'restoring':
      return `Restoring: the report is due by ${marks.restoreReportDue ? untilWords(marks.restoreReportDue, style) : ''}, else it is in redemption again. ${at}`;
    case 'deleting':
      return `In deletion: nothing can be done. Free for anyone from ${dayWords(marks.release, style)} at the earliest.`;
    case 'free':
      return `Free for anyone since ${dayWords(marks.release, style)}.`;
  }
}
