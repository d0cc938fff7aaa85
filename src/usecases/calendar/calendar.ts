import { everyRow, type LedgerRow } from '@/core/ledger';
import { formatAmount, type NumberStyle } from '@/core/money';
import type { Deadline } from '@/core/pricing';
import type { AgendaItem, AgendaKind } from '@/core/selling';
import { addDays, type Day, dayIn, dayOf, endDay, formatDay, untilDay } from '@/core/time';
import { type Settings, selectSettings } from '@/database/settings';
import { selectWatches, type WatchRow } from '@/database/watches';
import { type CalendarDeadline, writeCalendar } from '@/formats/calendar/writeCalendar';
import type { Deps } from '../deps';
import { projectedLedger } from '../names/ledger';
import { sellingAgenda } from '../selling/report';

/** How far a calendar looks ahead: whoever reads it reads it again before then. Further on it would only grow. */
const HORIZON_DAYS = 400;

/**
 * The deadlines of the next 400 days, of every name that is not being dropped, as an iCalendar file with the user's alarms;
 * with the days of selling and the releases of watched names. Computed off the thread that answers requests.
 */
export async function deadlineCalendar(deps: Deps): Promise<string> {
  const [projection, settings, watched, selling] = await Promise.all([
    projectedLedger(deps),
    selectSettings(deps.database),
    selectWatches(deps.database, null),
    sellingAgenda(deps),
  ]);
  const last = dayOf(addDays(projection.asOf, HORIZON_DAYS));
  const within = ({ day }: CalendarDeadline) => day <= last;
  const deadlines = everyRow(projection).flatMap((row) =>
    row.name.purpose === 'drop'
      ? []
      : [deadlineOf(row, settings), mailDeadlineOf(row, settings.zone)].flatMap((one) => one ?? []),
  );
  const releases = watched.flatMap((watch) => releaseOf(watch, settings.zone) ?? []);
  const sales = selling.flatMap((item) => sellingDay(item, settings) ?? []);
  return writeCalendar([...deadlines, ...releases, ...sales].filter(within), settings.alarmDays, projection.asOf);
}

const SELLING_SUMMARIES: Readonly<Record<AgendaKind, string>> = {
  'offer to answer': 'last day to answer the offer',
  handover: 'your turn in its sale',
  'proof missing': 'prove that it is yours',
  'auction closing': 'its auction closes',
  'auction unsold': 'its auction did not sell',
  'listing refused': 'its listing was refused',
  'to be seen live': 'look whether it is live',
  'term too short': 'its term ends before a sale would be handed over',
  'never listed': 'never listed',
};

/** How days and figures are written. */
type Notation = Pick<Settings, 'zone' | 'numberStyle'>;

/** What is due in selling on a day of its own. */
function sellingDay(
  { kind, ascii, unicode, by, minor, currency, who }: AgendaItem,
  { zone, numberStyle: style }: Notation,
): CalendarDeadline | null {
  if (by === null) return null;
  const money =
    minor === null || currency === null ? '' : ` ${formatAmount({ minor, currency }, { whole: true, style })}.`;
  return {
    key: `${ascii}-${kind.replaceAll(' ', '-')}-${dayOf(by)}`,
    day: kind === 'offer to answer' ? untilDay(by, zone) : dayIn(by, zone),
    summary: `${unicode}: ${SELLING_SUMMARIES[kind]}`,
    description: `${who}.${money}`,
    category: 'selling',
  };
}

/** The first day on which a watched name may come free. */
function releaseOf({ ascii, unicode, earliest, latest, isFree }: WatchRow, zone: string): CalendarDeadline | null {
  if (earliest === null || isFree) return null;
  const until = latest === null ? '' : ` At the latest on ${formatDay(dayIn(latest, zone))}.`;
  return {
    key: `${ascii}-release`,
    day: dayIn(earliest, zone),
    summary: `${unicode}: may become available`,
    description: `A watched name may become available from this day on.${until}`,
    category: 'release',
  };
}

/** The last day to confirm the holder's mail address. */
function mailDeadlineOf({ name }: LedgerRow, zone: string): CalendarDeadline | null {
  if (name.confirmMailBy === null) return null;
  return {
    key: `${name.ascii}-mail-${dayOf(name.confirmMailBy)}`,
    day: untilDay(name.confirmMailBy, zone),
    summary: `${name.unicode}: last day to confirm the holder’s mail address`,
    description: 'Follow the link in the registrar’s mail. After this day the name is on hold: site and mail stop.',
    category: 'mail to confirm',
  };
}

function deadlineOf(row: LedgerRow, { zone, numberStyle }: Notation): CalendarDeadline | null {
  const { deadline, termEnd, name } = row;
  if (!deadline || !termEnd) return null;
  const day = deadline.kind === 'charge' ? dayIn(deadline.at, zone) : untilDay(deadline.at, zone);
  return {
    key: `${name.ascii}-${deadline.kind.replace(' ', '-')}-${dayOf(termEnd.at)}`,
    day,
    summary: `${name.unicode}: ${summaryOf(deadline, row.phase === 'pending restore', numberStyle)}`,
    description: `${whatHappens(deadline, day, numberStyle)} The term ends ${formatDay(endDay(termEnd, zone))}.`,
    category: deadline.kind,
  };
}

function summaryOf(deadline: Deadline, isRestoring: boolean, style: NumberStyle): string {
  const about = deadline.kind === 'lost' && deadline.ruleOfThumb ? 'about ' : '';
  const before = deadline.before ? ` ${about}${formatAmount(deadline.before, { style })}` : '';
  switch (deadline.kind) {
    case 'charge':
      return `charged${before}`;
    case 'late fee':
      return `last day without the late fee,${before}`;
    case 'restore':
      if (isRestoring) return 'restore report due';
      return deadline.before ? `last day to renew for${before}` : 'last day to renew, price not known';
    case 'auction':
      return `last day before it is auctioned away,${before}`;
    case 'lost':
      return `last day to keep it,${before}`;
  }
}

function whatHappens(deadline: Deadline, day: Day, style: NumberStyle): string {
  if (deadline.kind === 'charge') return `Auto-renew charges it on ${formatDay(day)} if the money is there.`;
  const after = deadline.after
    ? `it costs ${deadline.ruleOfThumb ? 'about ' : ''}${formatAmount(deadline.after, { style })}`
    : deadline.kind === 'restore'
      ? 'it costs more'
      : 'it is lost';
  return `After ${formatDay(day)} ${after}.`;
}
