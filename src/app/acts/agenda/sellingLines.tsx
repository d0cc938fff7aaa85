'use client';
import type { ReactNode } from 'react';
import { type AgendaItem, type AgendaKind, SALE_STAGES } from '@/core/selling';
import type { Instant } from '@/core/time';
import { ButtonLink } from '@/ui/controls/Button';
import { Link } from '@/ui/controls/Link';
import type { DecisionLine, DecisionLines } from '@/ui/grid/DecisionTable';
import type { LinePoint } from '@/ui/strip/linePoints';
import { NumberLine } from '@/ui/strip/NumberLine';
import { StageStrip } from '@/ui/strip/StageStrip';
import { LINE_WIDTH } from '@/ui/strip/tableScale';
import { formatAmount, formatFigure } from '@/ui/text/figures';
import { AGENDA_WORDS, STAGE_WORDS } from '@/ui/text/sellingWords';
import { type DayStyle, dueWords } from '@/ui/text/words';
import type { AgendaGroup } from '@/usecases/selling/report';
import { agendaPage } from '../../frame/pages';

/** What the lines are written with. */
export interface Told {
  readonly today: Instant;
  readonly style: DayStyle;
}

/** The name of a line, as the way to what deals with it. */
export function nameLink(href: string, unicode: string): ReactNode {
  return (
    <Link href={href} className="name">
      {unicode}
    </Link>
  );
}

const amountOf = ({ minor, currency }: Pick<AgendaItem, 'minor' | 'currency'>) =>
  minor === null || currency === null ? '' : formatAmount({ minor, currency }, true);

/** Money that is owed: the stage of each sale, and how long it has stood. */
function handoverLine(item: AgendaItem, { today, style }: Told): DecisionLine {
  const stage = item.about.kind === 'sale' ? item.about.stage : 'buyer known';
  const { day, days, over } = dueWords(item.by, today, style);
  const isOverdue = over !== null;
  return {
    key: `sale ${agendaPage(item)}`,
    day,
    days,
    name: nameLink(agendaPage(item), item.unicode),
    who: item.who,
    what: (
      <>
        <span>{STAGE_WORDS[stage]}</span>
        {over !== null && <span className="caution">, {over}</span>}
      </>
    ),
    picture: (
      <StageStrip
        stages={SALE_STAGES}
        present={stage}
        isOverdue={isOverdue}
        width={LINE_WIDTH}
        height={30}
        label={`${STAGE_WORDS[stage]}${over === null ? '' : `, ${over}`}`}
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

/** `besides` are the other offers on the same name: rivals stand on the same line. */
function sellingLine(item: AgendaItem, { today, style }: Told, besides: readonly AgendaItem[] = []): DecisionLine {
  const { asking } = item;
  const isOffer = item.kind === 'offer to answer';
  const points: LinePoint[] = [];
  if (isOffer && item.minor !== null) points.push({ kind: 'offer', minor: item.minor });
  const asked = asking !== null && asking.currency === item.currency ? asking.minor : null;
  if (isOffer && asked !== null) points.push({ kind: 'asking', minor: asked });
  for (const { minor, currency } of besides)
    if (minor !== null && currency === item.currency) points.push({ kind: 'other', minor });
  const rivals = besides.length === 0 ? '' : besides.length === 1 ? ', one rival' : `, ${besides.length} rivals`;
  const share = asked && item.minor !== null ? `${Math.round((100 * item.minor) / asked)} % of asking` : null;
  const { day, days } = dueWords(item.by, today, style);
  return {
    key: `${item.kind} ${agendaPage(item)}`,
    day,
    days,
    name: nameLink(agendaPage(item), item.unicode),
    who: item.who,
    what: (
      <>
        <span>{WHAT_WORDS[item.kind]}</span>
        {isOffer && (share || rivals) && (
          <span className="soft">
            {share && `: ${share}`}
            {rivals}
          </span>
        )}
      </>
    ),
    picture: points.length > 1 && (
      <NumberLine
        points={points}
        width={LINE_WIDTH}
        height={30}
        label={`${amountOf(item)}, ${share ?? 'nothing asked'}${rivals}`}
      />
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

/** Offers by name, what lapses first before what lapses later; those on one name stand together. */
export function offerLines(items: readonly AgendaItem[], told: Told): DecisionLine[] {
  const byName = new Map<number, AgendaItem[]>();
  for (const item of items) byName.set(item.nameId, [...(byName.get(item.nameId) ?? []), item]);
  return [...byName.values()].flatMap((own) =>
    own.map((item) =>
      sellingLine(
        item,
        told,
        own.filter((other) => other !== item),
      ),
    ),
  );
}

/** So much of each other kind stands on Today. */
const FEW = 3;

/** Offers, and after them whatever else selling wants: a few of each kind for Today. */
export function answerLines(selling: readonly AgendaGroup[], told: Told): DecisionLines[] {
  const offers = selling.find(({ kind }) => kind === 'offer to answer');
  const rest = selling.filter(({ kind }) => kind !== 'offer to answer' && kind !== 'handover');
  const more = <Link href="/selling">To Selling</Link>;
  return [
    ...(offers
      ? [{ title: 'Offers to answer', total: offers.total, lines: offerLines(offers.items, told), more }]
      : []),
    ...(rest.length > 0
      ? [
          {
            title: 'Selling, to see to',
            total: rest.reduce((sum, { total }) => sum + total, 0),
            lines: rest.flatMap(({ items }) => items.slice(0, FEW)).map((item) => sellingLine(item, told)),
            more,
          },
        ]
      : []),
  ];
}

/** Everything that selling wants, kind by kind: for Selling itself. `limit` lines of each, `more` under those that have more. */
export function agendaParts(
  selling: readonly AgendaGroup[],
  told: Told,
  limit: (group: AgendaGroup) => number,
  more: (group: AgendaGroup) => ReactNode,
): DecisionLines[] {
  return selling.map((group) => {
    const items = group.items.slice(0, limit(group));
    return {
      title: AGENDA_WORDS[group.kind],
      total: group.total,
      lines:
        group.kind === 'handover'
          ? items.map((item) => handoverLine(item, told))
          : group.kind === 'offer to answer'
            ? offerLines(items, told)
            : items.map((item) => sellingLine(item, told)),
      more: more(group),
    };
  });
}
