'use client';
import Link from 'next/link';
import { MOVE_WAY } from '@/core/moving';
import { type AgendaItem, type AgendaKind, SALE_STAGES } from '@/core/selling';
import type { Instant } from '@/core/time';
import { ButtonLink } from '@/ui/controls/Button';
import type { DecisionLine, DecisionLines } from '@/ui/grid/DecisionTable';
import { type LinePoint, NumberLine } from '@/ui/strip/NumberLine';
import { StageStrip } from '@/ui/strip/StageStrip';
import { LINE_WIDTH } from '@/ui/strip/tableScale';
import { formatAmount, formatFigure } from '@/ui/text/figures';
import { AGENDA_WORDS, STAGE_WORDS } from '@/ui/text/sellingWords';
import { type DayStyle, daysLeft, dayWords } from '@/ui/text/words';
import type { AcquiringItem } from '@/usecases/acquiring/today';
import type { TransferView } from '@/usecases/moving/underWay';
import type { AgendaGroup } from '@/usecases/selling/report';
import { agendaPage, namePage } from '../frame/pages';
import type { RowView } from '../frame/views';

interface Told {
  readonly today: Instant;
  readonly style: DayStyle;
  /** The ledger's rows of the names that are told of, by id. */
  readonly rows: ReadonlyMap<number, RowView>;
}

const nameLink = (href: string, unicode: string) => (
  <Link href={href} className="name">
    {unicode}
  </Link>
);

const amountOf = ({ minor, currency }: Pick<AgendaItem, 'minor' | 'currency'>) =>
  minor === null || currency === null ? '' : formatAmount({ minor, currency }, true);

/** Money that is owed: the stage of each sale, and how long it has stood. */
function handoverLine(item: AgendaItem, { today, style }: Told): DecisionLine {
  const stage = item.about.kind === 'sale' ? item.about.stage : 'buyer known';
  const days = item.by === null ? null : daysLeft(item.by, today, style);
  const isOverdue = days !== null && days < 0;
  return {
    key: `sale ${agendaPage(item)}`,
    day: item.by === null ? '' : dayWords(item.by, style),
    days: days === null ? '' : String(days),
    name: nameLink(agendaPage(item), item.unicode),
    who: item.who,
    what: (
      <>
        <span>{STAGE_WORDS[stage]}</span>
        {isOverdue && <span className="caution">, {-days} days over</span>}
      </>
    ),
    picture: (
      <StageStrip
        stages={SALE_STAGES}
        present={stage}
        isOverdue={isOverdue}
        width={LINE_WIDTH}
        height={30}
        label={`${STAGE_WORDS[stage]}${isOverdue ? `, ${-days} days over` : ''}`}
      />
    ),
    figures: <span className="decides">{amountOf(item)}</span>,
    acts: (
      <ButtonLink data-kind="plain" href={agendaPage(item)} aria-label={`Go on with the sale of ${item.unicode}`}>
        Hand over…
      </ButtonLink>
    ),
    isGrave: isOverdue,
  };
}

const ACT_WORDS: Readonly<Partial<Record<AgendaKind, string>>> = {
  'offer to answer': 'Answer…',
  'auction closing': 'Look…',
  'never listed': 'Price…',
};

/** What a line of selling is about, in words, where its kind does not say it. */
const WHAT_WORDS: Readonly<Record<AgendaKind, string>> = {
  handover: 'at your turn',
  'offer to answer': 'an offer lapses',
  'proof missing': 'not proved yet: nobody sees it',
  'auction closing': 'its auction closes',
  'auction unsold': 'its auction did not sell',
  'listing refused': 'its listing was refused',
  'to be seen live': 'look whether it is live',
  'term too short': 'its term ends before a sale is handed over',
  'never listed': 'never listed, and it costs most',
};

function sellingLine(item: AgendaItem, { today, style, rows }: Told): DecisionLine {
  const asking = rows.get(item.nameId)?.name.asking ?? null;
  const isOffer = item.kind === 'offer to answer';
  const points: LinePoint[] = [];
  if (isOffer && item.minor !== null) points.push({ kind: 'offer', minor: item.minor });
  const asked = asking !== null && asking.currency === item.currency ? asking.minor : null;
  if (isOffer && asked !== null) points.push({ kind: 'asking', minor: asked });
  const share = asked && item.minor !== null ? `${Math.round((100 * item.minor) / asked)} % of asking` : null;
  return {
    key: `${item.kind} ${agendaPage(item)}`,
    day: item.by === null ? '' : dayWords(item.by, style),
    days: item.by === null ? '' : String(daysLeft(item.by, today, style)),
    name: nameLink(agendaPage(item), item.unicode),
    who: item.who,
    what: (
      <>
        <span>{WHAT_WORDS[item.kind]}</span>
        {isOffer && share && <span className="soft">: {share}</span>}
      </>
    ),
    picture: points.length > 1 && (
      <NumberLine points={points} width={LINE_WIDTH} height={30} label={`${amountOf(item)}, ${share}`} />
    ),
    figures:
      isOffer && asked !== null && item.currency !== null ? (
        <>
          {amountOf(item)} of {formatFigure({ minor: asked, currency: item.currency }, true)}
        </>
      ) : (
        amountOf(item)
      ),
    acts: (
      <ButtonLink data-kind="plain" href={agendaPage(item)} aria-label={`${AGENDA_WORDS[item.kind]}: ${item.unicode}`}>
        {ACT_WORDS[item.kind] ?? 'See to it…'}
      </ButtonLink>
    ),
    isGrave: false,
  };
}

/** What is owed to the office: it stands right under what is lost. */
export function owedLines(selling: readonly AgendaGroup[], told: Told): DecisionLines[] {
  return selling
    .filter(({ kind }) => kind === 'handover')
    .map(({ total, items }) => ({
      title: 'Sold, and not paid until you go on',
      total,
      lines: items.map((item) => handoverLine(item, told)),
    }));
}

/** Offers, and after them whatever else selling wants. */
export function answerLines(selling: readonly AgendaGroup[], told: Told): DecisionLines[] {
  const offers = selling.filter(({ kind }) => kind === 'offer to answer');
  const rest = selling.filter(({ kind }) => kind !== 'offer to answer' && kind !== 'handover');
  const part = (title: string, groups: readonly AgendaGroup[]): DecisionLines[] =>
    groups.length === 0
      ? []
      : [
          {
            title,
            total: groups.reduce((sum, { total }) => sum + total, 0),
            lines: groups
              .flatMap(({ items }) => items.slice(0, groups.length > 1 ? 3 : 10))
              .map((item) => sellingLine(item, told)),
            more: <Link href="/selling">To Selling</Link>,
          },
        ];
  return [...part('Offers to answer', offers), ...part('Selling, to see to', rest)];
}

/** Transfers that wait for the person, or have stood longer than they usually do. */
export function transferLines(transfers: readonly TransferView[], { style, today }: Told): DecisionLines[] {
  if (transfers.length === 0) return [];
  return [
    {
      title: 'Transfers that wait',
      total: transfers.length,
      lines: transfers.slice(0, 10).map((one) => ({
        key: `transfer ${one.id}`,
        day: one.dueAt === null ? '' : dayWords(one.dueAt, style),
        days: one.dueAt === null ? '' : String(daysLeft(one.dueAt, today, style)),
        name: nameLink(namePage(one.ascii), one.unicode),
        who: `to ${one.to}`,
        what: (
          <>
            <span>
              {one.turn === 'you' ? 'waits for you' : 'later than usual'} since {dayWords(one.since, style)}
            </span>
            {one.problem && <p className="soft">{one.problem}</p>}
          </>
        ),
        picture: (
          <StageStrip
            stages={MOVE_WAY}
            present={one.stage}
            isOverdue={one.isOverdue}
            width={LINE_WIDTH}
            height={30}
            label={`transfer: ${one.stage}`}
          />
        ),
        figures: one.quotedMinor === null ? '' : formatAmount({ minor: one.quotedMinor, currency: one.currency }),
        acts: (
          <ButtonLink data-kind="plain" href="/transfers" aria-label={`Go on with the transfer of ${one.unicode}`}>
            Go on…
          </ButtonLink>
        ),
        isGrave: false,
      })),
    },
  ];
}

const ACQUIRING_WORDS: Readonly<Record<AcquiringItem['what'], string>> = {
  'to register by hand': 'register it at its registrar, and write down what was charged',
  'in doubt': 'its registration is in doubt: look whether it went through',
  'answer overdue': 'its holder has not answered in time',
  'to pay': 'agreed with its holder: pay it',
  'to arrive': 'paid: look whether it has arrived',
  'being tried': 'its release is waited for by the minute',
  got: 'registered at its release',
  lost: 'somebody else was faster at its release',
};

/** What acquiring wants of a person, and its news. */
export function acquiringLines(items: readonly AcquiringItem[], { style }: Told): DecisionLines[] {
  if (items.length === 0) return [];
  return [
    {
      title: 'Acquiring, to see to',
      total: items.length,
      lines: items.slice(0, 10).map(({ ascii, unicode, what, since, href }) => ({
        key: `${ascii} ${what}`,
        day: '',
        days: '',
        name: nameLink(href, unicode),
        who: '',
        what: (
          <>
            <span>{ACQUIRING_WORDS[what]}</span>
            <span className="soft">, since {dayWords(since, style)}</span>
          </>
        ),
        picture: null,
        figures: '',
        acts: (
          <ButtonLink data-kind="plain" href={href} aria-label={`See to ${unicode}`}>
            See to it…
          </ButtonLink>
        ),
        isGrave: false,
      })),
    },
  ];
}
