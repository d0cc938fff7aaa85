import type { ReactNode } from 'react';
import { renewableUntil } from '@/core/lifecycle';
import type { Amount } from '@/core/money';
import type { Instant } from '@/core/time';
import { formatAmount } from '@/ui/text/figures';
import {
  causeWords,
  type DayStyle,
  daysToEnd,
  dayWords,
  restoreWords,
  termEndWords,
  untilWords,
} from '@/ui/text/words';
import type { RowView } from '../../frame/views';

const money = (amount: Amount | null) => (amount ? formatAmount(amount) : 'a price not known');

/** Where a name stands and what comes next, in one or two sentences: on which date, for how much. */
export function standingSentence(row: RowView, account: string, day: Instant, style: DayStyle): ReactNode {
  const { phase, marks, termEnd, coming, costs, name, failed, outlook } = row;
  const at = name.registered
    ? `Registered ${termEndWords(name.registered, style)}, now at ${account}.`
    : `At ${account}.`;
  if (!phase || !marks || !termEnd) return `Nobody has said when its term ends. Set it under Edit. ${at}`;
  if (coming?.outcome === 'fail') {
    return (
      <>
        Auto-renew will be tried on {dayWords(coming.at, style)} and{' '}
        <span className="caution">fails ({coming.cause ? causeWords(coming.cause) : 'no payment method'})</span>. Then
        it lapses on {termEndWords(termEnd, style)}. {at}
      </>
    );
  }
  if (coming) {
    const assumed = coming.assumed ? ', as far as is known' : '';
    return `In term until ${termEndWords(termEnd, style)}. Auto-renew charges ${money(coming.cost)} on ${dayWords(coming.at, style)}${assumed}. ${at}`;
  }
  const why = failed?.cause ? ` (${causeWords(failed.cause)})` : '';
  const restore = `${restoreWords(costs)}${costs.restoreRuleOfThumb ? ', by rule of thumb' : ''}`;
  const late = `Late renewal ${money(costs.lateRenewal)} until ${untilWords(renewableUntil(marks, day), style)}, then `;
  const auction = marks.auction !== null && day < marks.auction ? 'the registrar auctions it away' : null;
  const after = auction ?? (marks.redemptionEnd > marks.deletion ? `restore and a year ${restore}` : 'it is lost');
  switch (phase) {
    case 'refundable':
    case 'term':
    case 'pending transfer':
      return `${outlook.kind === 'lapses' && outlook.ifOff ? 'Nobody has said whether auto-renew is on: if it is off, it lapses' : 'Lapses'} ${termEndWords(termEnd, style)}. ${marks.deletion > marks.termEnd ? late : 'Then '}${after}. ${at}`;
    case 'late':
      return `Past its term for ${-daysToEnd(termEnd, day, style)} days${why}. ${late}${after}. ${at}`;
    case 'redemption':
      return (
        <>
          <span className="caution">In redemption.</span> Restore and a year {restore} until{' '}
          {untilWords(marks.redemptionEnd, style)}, then it is lost. {at}
        </>
      );
    case 'pending restore':
      return `Pending restore: the report is due by ${marks.restoreReportDue ? untilWords(marks.restoreReportDue, style) : ''}, else it is in redemption again. ${at}`;
    case 'pending delete':
      return `Pending delete: nothing can be done. Available to anyone from ${dayWords(marks.release, style)} at the earliest.`;
    case 'available':
      return `Available to anyone since ${dayWords(marks.release, style)}.`;
  }
}
