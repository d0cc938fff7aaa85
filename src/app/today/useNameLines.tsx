'use client';
import { type Consequence, decideBy } from '@/core/ledger';
import type { Deadline } from '@/core/pricing';
import type { Instant } from '@/core/time';
import { Button, ButtonLink } from '@/ui/controls/Button';
import { Link } from '@/ui/controls/Link';
import type { DecisionLine, DecisionLines } from '@/ui/grid/DecisionTable';
import { LifecycleStrip } from '@/ui/strip/LifecycleStrip';
import { tableScale } from '@/ui/strip/tableScale';
import { CONSEQUENCE_WORDS } from '@/ui/text/todayWords';
import {
  causeWords,
  type DayStyle,
  daysToDeadline,
  dayWords,
  deadlineFigures,
  dueWords,
  outlookWords,
  untilWords,
} from '@/ui/text/words';
import { useRenew } from '../acts/renew/useRenew';
import { Stalled } from '../acts/switch/Stalled';
import { useAct } from '../acts/useAct';
import { useLedger } from '../frame/LedgerProvider';
import { namePage } from '../frame/pages';
import type { RowView, TodayView } from '../frame/views';
import { mailConfirmedAction } from './actions';

interface NameActs {
  readonly isOpen: (row: RowView) => boolean;
  readonly onSwitch: (row: RowView) => void;
  readonly onSeen: (row: RowView) => void;
}

/** The names of each consequence as lines of Today. */
export function useNameLines(
  lists: TodayView['lists'],
  acts: NameActs,
): (DecisionLines & { readonly isLost: boolean })[] {
  const { meta, style, today, homeCurrency } = useLedger();
  const plan = useRenew();
  const { act } = useAct();
  const accountOf = (row: RowView) => meta?.rules.accounts.find(({ id }) => id === row.name.accountId)?.label ?? '';
  const renew = (rows: readonly RowView[]) =>
    void plan(rows.map((row) => ({ nameId: row.name.id, years: row.policy.terms.renew.least })));

  const words = { today, style, homeCurrency, accountOf };
  const lineOf = (row: RowView, consequence: Consequence): DecisionLine =>
    consequence === 'stops working'
      ? {
          ...mailLine(row, words),
          acts: (
            <Button
              data-kind="plain"
              onPress={() => void act(() => mailConfirmedAction(row.name.id))}
              aria-label={`The mail of ${row.name.unicode} is confirmed`}
            >
              It is confirmed
            </Button>
          ),
        }
      : {
          ...deadlineLine(row, consequence, words),
          acts: (
            <Acts
              row={row}
              {...acts}
              onRenew={() => renew([row])}
              onRestore={() => void plan([{ nameId: row.name.id, years: 1 }], 'restore')}
            />
          ),
        };

  return lists
    .filter(({ total }) => total > 0)
    .map(({ consequence, total, rows }) => ({
      isLost: consequence === 'lost',
      title: CONSEQUENCE_WORDS[consequence],
      total,
      lines: rows.map((row) => lineOf(row, consequence)),
      more: <More consequence={consequence} rows={rows} onRenew={renew} />,
    }));
}

interface Words {
  readonly today: Instant;
  readonly style: DayStyle;
  readonly homeCurrency: string;
  readonly accountOf: (row: RowView) => string;
}

/** What every line of a name begins with. */
function nameLine(row: RowView, consequence: Consequence, { today, style, accountOf }: Words) {
  return {
    key: `${consequence} ${row.name.id}`,
    name: (
      <>
        <Link href={namePage(row.name.ascii)} className="name">
          {row.name.unicode}
        </Link>
        {row.name.neverLost && <span className="soft"> never to be lost</span>}
      </>
    ),
    who: accountOf(row),
    picture: row.strip && (
      <LifecycleStrip
        strip={row.strip}
        scale={tableScale(today)}
        height={30}
        day={today}
        label={outlookWords(row.outlook, style)}
      />
    ),
  };
}

/** A name with a deadline: the day until which nothing is lost yet, what becomes of it, and what it costs then. */
function deadlineLine(row: RowView, consequence: Consequence, words: Words): Omit<DecisionLine, 'acts'> {
  const { today, style, homeCurrency } = words;
  const { outlook, deadline, phase } = row;
  const fails = outlook.kind === 'charge fails';
  const by = decideBy(row);
  const days = (deadline: Pick<Deadline, 'at' | 'kind'> | null) =>
    deadline === null ? '' : String(daysToDeadline(deadline, today, style));
  return {
    ...nameLine(row, consequence, words),
    day: by === null ? '' : fails ? dayWords(by, style) : deadlineDay(row, style),
    days: by === null ? '' : fails ? days({ at: by, kind: 'charge' }) : days(deadline),
    what: (
      <>
        <span>
          {consequence === 'lost' && phase !== null && phase !== 'late' ? 'lost: ' : ''}
          {outlookWords(outlook, style)}
        </span>
        {fails && outlook.charge.cause && <span className="soft">, {causeWords(outlook.charge.cause)}</span>}
        <Stalled row={row} />
      </>
    ),
    figures: deadlineFigures(deadline, homeCurrency),
    isGrave: consequence === 'lost',
  };
}

/** A name that stops working until its holder’s mail address is confirmed. */
function mailLine(row: RowView, words: Words): Omit<DecisionLine, 'acts'> {
  const { today, style } = words;
  const by = row.name.confirmMailBy ?? today;
  const due = dueWords(by, today, style);
  return {
    ...nameLine(row, 'stops working', words),
    day: due.day,
    days: due.days,
    what: (
      <>
        <span>{by > today ? `works until ${untilWords(by, style)}` : 'on hold until it is confirmed'}</span>
        <span className="soft">, follow the link in the registrar’s mail</span>
      </>
    ),
    figures: null,
    isGrave: by <= today,
  };
}

/** Where all names of a consequence are seen to. */
function More({
  consequence,
  rows,
  onRenew,
}: {
  consequence: Consequence;
  rows: readonly RowView[];
  onRenew: (rows: readonly RowView[]) => void;
}) {
  if (consequence === 'lost') return <Link href="/rescue">To Rescue</Link>;
  if (consequence === 'stops working') return null;
  const lapsing = rows.filter(({ outlook }) => outlook.kind === 'lapses');
  return (
    <>
      <Link href="/renewals">See what every account charges</Link>
      {lapsing.length > 1 && (
        <Button data-kind="plain" onPress={() => onRenew(lapsing)}>
          Renew the {lapsing.length} that lapse…
        </Button>
      )}
    </>
  );
}

/** The last day on which nothing is lost yet, in words. */
function deadlineDay({ deadline }: RowView, style: DayStyle): string {
  if (!deadline) return '';
  return deadline.kind === 'charge' ? dayWords(deadline.at, style) : untilWords(deadline.at, style);
}

/** What mends it, at the end of its line. */
function Acts({
  row,
  isOpen,
  onRenew,
  onRestore,
  onSwitch,
  onSeen,
}: { row: RowView; onRenew: () => void; onRestore: () => void } & NameActs) {
  const name = row.name.unicode;
  const { phase, outlook } = row;
  const isRenewable = phase === 'term' || phase === 'refundable' || phase === 'late';
  return (
    <>
      {outlook.kind === 'charge fails' && (
        <ButtonLink
          data-kind="plain"
          href={`/renewals?account=${row.name.accountId}`}
          aria-label={`Fund the account of ${name}`}
        >
          Fund…
        </ButtonLink>
      )}
      {phase === 'term' && outlook.kind !== 'charge fails' && (
        <Button data-kind="plain" onPress={() => onSwitch(row)} aria-label={`Auto-renew of ${name}`}>
          Auto-renew…
        </Button>
      )}
      {isOpen(row) && (
        <Button data-kind="plain" onPress={() => onSeen(row)} aria-label={`Mark ${name} as seen`}>
          Seen
        </Button>
      )}
      {isRenewable && outlook.kind !== 'charged' && (
        <Button data-kind="plain" onPress={onRenew} aria-label={`Renew ${name}`}>
          {phase === 'late' ? 'Renew late…' : 'Renew…'}
        </Button>
      )}
      {phase === 'redemption' && (
        <Button data-kind="plain" onPress={onRestore} aria-label={`Restore ${name}`}>
          Restore…
        </Button>
      )}
      {phase === 'pending restore' && (
        <ButtonLink data-kind="plain" href="/rescue" aria-label={`The report of ${name}`}>
          Send the report…
        </ButtonLink>
      )}
    </>
  );
}
