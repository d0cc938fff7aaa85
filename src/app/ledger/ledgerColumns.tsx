'use client';
import type { ReactNode } from 'react';
import styled from 'styled-components';
import { isCaution, type SortKey } from '@/core/ledger';
import { addDays, type Instant } from '@/core/time';
import type { GridColumn } from '@/ui/grid/gridProps';
import { LifecycleStrip, type StripScale } from '@/ui/strip/LifecycleStrip';
import { StripAxis } from '@/ui/strip/StripAxis';
import { formatAmount, formatFigure } from '@/ui/text/figures';
import {
  amountsWords,
  type DayStyle,
  daysToEnd,
  daysWords,
  dayWords,
  deadlineFigures,
  outlookWords,
  PHASE_WORDS,
  SETTING_WORDS,
  termEndWords,
} from '@/ui/text/words';
import type { RowView } from '../frame/views';

export interface ColumnContext {
  readonly day: Instant;
  readonly style: DayStyle;
  readonly homeCurrency: string;
  readonly accountLabel: (id: number) => string;
}

interface ColumnDefinition {
  readonly label: string;
  readonly width: number;
  readonly sort?: SortKey;
  readonly figures?: boolean;
  readonly heading?: (context: ColumnContext) => ReactNode;
  readonly render: (row: RowView, context: ColumnContext) => ReactNode;
}

/** How wide life strips are drawn, and which stretch of time they show around the chosen day. */
/** As wide as leaves every column whole on a sheet of 1280 px. */
const STRIP_WIDTH = 212;
const DAYS_BACK = 80;
const DAYS_ON = 285;

export function stripScale(day: Instant): StripScale {
  return { from: addDays(day, -DAYS_BACK), to: addDays(day, DAYS_ON), width: STRIP_WIDTH };
}

const soft = (text: string) => <span className="soft">{text}</span>;

/** Every column the ledger can show, in the order in which they stand. */
export const LEDGER_COLUMNS = {
  name: {
    label: 'Name',
    width: 166,
    sort: 'name',
    render: ({ name }) => (
      <span className="name opens" title={name.unicode === name.ascii ? undefined : name.ascii}>
        {name.unicode}
      </span>
    ),
  },
  account: {
    label: 'Account',
    width: 90,
    sort: 'account',
    render: ({ name }, { accountLabel }) => accountLabel(name.accountId),
  },
  termEnd: {
    label: 'Term ends',
    width: 96,
    sort: 'termEnd',
    figures: true,
    render: ({ termEnd }, { style }) => (termEnd ? termEndWords(termEnd, style) : soft('not known')),
  },
  days: {
    label: 'to end',
    width: 46,
    sort: 'termEnd',
    figures: true,
    render: ({ termEnd }, { day, style }) => (termEnd ? soft(daysWords(daysToEnd(termEnd, day, style))) : null),
  },
  auto: {
    label: 'Auto-renew',
    width: 78,
    sort: 'auto',
    render: ({ setting, name }) => (
      <span
        className={setting === 'stalled' ? 'caution' : undefined}
        title={`${name.stalledBy ?? name.standing}${name.requested ? `, requested: ${name.requested}` : ''}`}
      >
        {SETTING_WORDS[setting]}
        {name.requested && <span className="soft"> → {name.requested}?</span>}
      </span>
    ),
  },
  outlook: {
    label: 'If nothing is done',
    width: 190,
    sort: 'deadline',
    render: ({ outlook, name }, { style }) => (
      <span className={isCaution(outlook) && name.purpose !== 'drop' ? 'caution' : undefined}>
        {outlookWords(outlook, style)}
      </span>
    ),
  },
  cost: {
    label: 'Cost now, then',
    width: 126,
    sort: 'cost',
    figures: true,
    heading: () => 'now → then',
    render: ({ deadline, outlook, name }, { homeCurrency }) => (
      <span className={isCaution(outlook) && name.purpose !== 'drop' ? 'caution' : undefined}>
        {deadlineFigures(deadline, homeCurrency)}
      </span>
    ),
  },
  strip: {
    label: 'Lifecycle',
    width: STRIP_WIDTH,
    heading: ({ day }) => <StripAxis scale={stripScale(day)} day={day} height={33} />,
    render: ({ strip, outlook }, { day, style }) =>
      strip ? (
        <LifecycleStrip
          strip={strip}
          scale={stripScale(day)}
          height={31}
          day={day}
          label={outlookWords(outlook, style)}
        />
      ) : null,
  },
  asking: {
    label: 'Asking',
    width: 82,
    sort: 'asking',
    figures: true,
    heading: ({ homeCurrency }) => `Asking ${homeCurrency === 'USD' ? '$' : homeCurrency}`,
    render: ({ name }, { homeCurrency }) =>
      name.asking
        ? name.asking.currency === homeCurrency
          ? formatFigure(name.asking, true)
          : formatAmount(name.asking, true)
        : null,
  },
  phase: {
    label: 'Phase',
    width: 110,
    sort: 'phase',
    render: ({ phase }) =>
      phase ? <span title={PHASE_WORDS[phase].trade ?? undefined}>{PHASE_WORDS[phase].word}</span> : soft('not known'),
  },
  ending: {
    label: 'Ending',
    width: 76,
    sort: 'ending',
    render: ({ name }) => <span className="name">.{name.ending}</span>,
  },
  registered: {
    label: 'Registered',
    width: 100,
    sort: 'registered',
    figures: true,
    render: ({ name }, { style }) => (name.registered ? termEndWords(name.registered, style) : null),
  },
  spent: {
    label: 'Spent so far',
    width: 96,
    sort: 'spent',
    figures: true,
    render: ({ name }) => (name.spent.length > 0 ? amountsWords(name.spent) : null),
  },
  perYear: {
    label: 'Cost per year',
    width: 96,
    sort: 'perYear',
    figures: true,
    render: ({ costs }) => (costs.perYear ? formatAmount(costs.perYear) : soft('no price')),
  },
  purpose: {
    label: 'Purpose',
    width: 84,
    render: ({ name }) => `${name.purpose}${name.neverLost ? ' ◆' : ''}`,
  },
  tags: { label: 'Tags', width: 130, render: ({ name }) => name.tags.join(', ') },
  lock: { label: 'Lock', width: 54, render: ({ name }) => switchWords(name.lock, name.requestedLock) },
  privacy: { label: 'Privacy', width: 66, render: ({ name }) => switchWords(name.privacy, name.requestedPrivacy) },
  notes: { label: 'Notes', width: 200, render: ({ name }) => soft(name.notes) },
  checked: {
    label: 'Last checked',
    width: 100,
    sort: 'checked',
    figures: true,
    render: ({ name }, { style }) => (name.checkedAt ? dayWords(name.checkedAt, style) : soft('never')),
  },
} as const satisfies Record<string, ColumnDefinition>;

export type ColumnId = keyof typeof LEDGER_COLUMNS;
export const COLUMN_IDS = Object.keys(LEDGER_COLUMNS) as ColumnId[];
export const USUAL_COLUMNS: readonly ColumnId[] = [
  'name',
  'account',
  'termEnd',
  'days',
  'auto',
  'outlook',
  'cost',
  'strip',
  'asking',
];

function switchWords(value: boolean | null, requested: 'on' | 'off' | null): ReactNode {
  return (
    <>
      {value === null ? soft('?') : value ? 'on' : 'off'}
      {requested && <span className="soft"> → {requested}?</span>}
    </>
  );
}

export function isColumn(id: string): id is ColumnId {
  return id in LEDGER_COLUMNS;
}

/** What the column sorts by, or `null`. */
export function sortKeyOf(id: ColumnId): SortKey | null {
  const definition: ColumnDefinition = LEDGER_COLUMNS[id];
  return definition.sort ?? null;
}

/** How high a row of two lines is, in pixels. */
export const TWO_LINES_HEIGHT = 56;
/** Where there is no room for columns: the check box, and this beside it. */
const CHECK_WIDTH = 34;

/** On a telephone a row becomes two lines: what it is and what becomes of it, then its life and what it costs. */
export function narrowColumns(width: number, context: ColumnContext): GridColumn<RowView>[] {
  const { day, style, homeCurrency } = context;
  const scale = { from: addDays(day, -DAYS_BACK), to: addDays(day, DAYS_ON), width: 150 };
  return [
    {
      id: 'outlook',
      label: 'Names',
      heading: 'Names, by what comes next',
      width: width - CHECK_WIDTH,
      sortable: true,
      render: (row) => {
        const grave = isCaution(row.outlook) && row.name.purpose !== 'drop' ? 'caution' : undefined;
        return (
          <TwoLines>
            <span className="name decides">{row.name.unicode}</span>
            <span className={grave}>{outlookWords(row.outlook, style)}</span>
            <span>
              {row.strip && (
                <LifecycleStrip
                  strip={row.strip}
                  scale={scale}
                  height={22}
                  day={day}
                  label={outlookWords(row.outlook, style)}
                />
              )}
            </span>
            <span className={grave}>{deadlineFigures(row.deadline, homeCurrency)}</span>
          </TwoLines>
        );
      },
    },
  ];
}

const TwoLines = styled.span`
  display: grid;
  grid-template: 26px 24px / minmax(0, auto) minmax(0, 1fr);
  gap: 0 10px;
  align-items: center;
  width: 100%;
  & > span { overflow: hidden; text-overflow: ellipsis; white-space: nowrap; }
  & > span:nth-child(even) { text-align: right; }
  & svg { display: block; }
`;

/** The columns for the grid. `edit` draws a cell that is being edited instead of its value. */
export function gridColumns(
  ids: readonly ColumnId[],
  widths: Readonly<Record<string, number>>,
  context: ColumnContext,
  edit: (row: RowView, id: ColumnId) => ReactNode | null,
): GridColumn<RowView>[] {
  return ids.map((id) => {
    const definition: ColumnDefinition = LEDGER_COLUMNS[id];
    return {
      id,
      label: definition.label,
      heading: definition.heading?.(context) ?? definition.label,
      width: id === 'strip' ? STRIP_WIDTH : (widths[id] ?? definition.width),
      figures: definition.figures ?? false,
      sortable: definition.sort !== undefined,
      render: (row) => edit(row, id) ?? definition.render(row, context),
    };
  });
}
