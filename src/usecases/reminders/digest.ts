import type { DueReminder } from '@/core/ledger';
import { formatAmount, type NumberStyle } from '@/core/money';
import { daysUntil, endDay, formatDay, type Instant, untilDay } from '@/core/time';

/** One line of a digest: what is told, how often it has been told before, and where it is acknowledged. */
export interface DigestLine {
  readonly reminder: DueReminder;
  readonly account: string;
  readonly toldBefore: number;
  readonly link: string;
}

/** How days and figures are written. */
export interface Notation {
  readonly zone: string;
  readonly numberStyle: NumberStyle;
}

export interface DigestTexts {
  readonly subject: string;
  readonly text: string;
  readonly html: string;
}

function escapeHtml(text: string): string {
  return text.replace(/[&<>"']/g, (letter) => `&#${letter.charCodeAt(0)};`);
}

/** What a line says: the last day, what happens after it, what it costs before and after, and when the term ends. */
function sentence({ reminder }: DigestLine, asOf: Instant, { zone, numberStyle: style }: Notation): string {
  const { row, kind, at } = reminder;
  const { deadline } = row;
  const last = untilDay(at, zone);
  if (kind === 'mail to confirm')
    return at <= asOf
      ? 'On hold: its holder’s mail address was not confirmed in time. Follow the link in the registrar’s mail.'
      : `Its holder’s mail address has to be confirmed by ${formatDay(last)}: follow the link in the registrar’s mail, or the name stops working.`;
  const days = daysUntil(last, asOf, zone);
  const left = days <= 0 ? 'today' : days === 1 ? 'tomorrow' : `in ${days} days`;
  const ends = row.termEnd
    ? ` The term ${days < 0 || row.phase === 'late' ? 'ended' : 'ends'} ${formatDay(endDay(row.termEnd, zone))}.`
    : '';
  const about = deadline?.ruleOfThumb ? 'about ' : '';
  const now = deadline?.before
    ? ` ${deadline.kind === 'lost' ? about : ''}${formatAmount(deadline.before, { style })} keeps it`
    : '';
  const after = deadline?.after
    ? `, ${about}${formatAmount(deadline.after, { style })} after`
    : deadline?.kind === 'lost'
      ? ', then it is lost'
      : '';
  const what =
    kind === 'charge failed'
      ? 'Its automatic charge has failed. '
      : kind === 'never to be lost'
        ? 'It must never be lost. '
        : '';
  return `${what}Last day before the next deadline: ${formatDay(last)}, ${left}.${now}${after}${now || after ? '.' : ''}${ends}`;
}

const urgency = (times: number) => (times === 0 ? '' : times === 1 ? 'Second time: ' : `Told ${times + 1} times: `);

/** A digest as subject, plain text and HTML. The most often told come first: what nobody has seen grows more urgent. */
export function writeDigest(
  lines: readonly DigestLine[],
  asOf: Instant,
  notation: Notation,
  home: string,
): DigestTexts {
  const sorted = [...lines].sort(
    (a, b) =>
      b.toldBefore - a.toldBefore ||
      a.reminder.at - b.reminder.at ||
      (a.reminder.row.name.ascii < b.reminder.row.name.ascii ? -1 : 1),
  );
  const atOnce = sorted.filter((line) => line.reminder.kind !== 'deadline').length;
  const most = sorted[0]?.toldBefore ?? 0;
  const names = sorted.length === 1 ? (sorted[0]?.reminder.row.name.unicode ?? '') : `${sorted.length} names`;
  const subject = `${urgency(most)}${names}: ${atOnce > 0 ? 'in danger' : 'deadlines ahead'}`;
  const text = [
    ...sorted.map(
      (line) =>
        `${urgency(line.toldBefore)}${line.reminder.row.name.unicode} (${line.account})\n${sentence(line, asOf, notation)}\nSeen: ${line.link}\n`,
    ),
    `Everything that needs a decision: ${home}`,
  ].join('\n');
  const rows = sorted
    .map(
      (line) =>
        `<li style="margin:0 0 18px"><strong style="font-family:monospace;font-size:17px">${escapeHtml(line.reminder.row.name.unicode)}</strong> <span style="color:#55666f">${escapeHtml(line.account)}</span><br>${escapeHtml(urgency(line.toldBefore) + sentence(line, asOf, notation))}<br><a href="${escapeHtml(line.link)}">Seen</a></li>`,
    )
    .join('');
  const html = `<!doctype html><html lang="en"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width, initial-scale=1"><title>${escapeHtml(subject)}</title></head><body style="margin:0;padding:20px;max-width:560px;font:16px/1.5 sans-serif;color:#15242e;background:#fbfcfc"><ul style="list-style:none;margin:0;padding:0">${rows}</ul><p><a href="${escapeHtml(home)}">Everything that needs a decision</a></p></body></html>`;
  return { subject, text, html };
}
