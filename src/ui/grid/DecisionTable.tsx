'use client';
import type { ReactNode } from 'react';
import styled from 'styled-components';
import { LINE_WIDTH, SHORT_LINE_WIDTH } from '../strip/tableScale';

/** One line that wants a decision: whatever it is about, it says by when, what, and what mends it at the same places. */
export interface DecisionLine {
  readonly key: string;
  /** A box to choose it by. */
  readonly check?: ReactNode;
  /** The day by which it wants a decision, in words, and the days to it. */
  readonly day: string;
  readonly days: string;
  readonly name: ReactNode;
  /** The account, the buyer, the marketplace. */
  readonly who: ReactNode;
  readonly what: ReactNode;
  readonly picture: ReactNode;
  readonly figures: ReactNode;
  /** What is recommended, and why. */
  readonly verdict?: ReactNode;
  readonly acts: ReactNode;
  readonly isGrave: boolean;
}

/** Lines that lead to the same. */
export interface DecisionLines {
  /** Empty for the only part of a table. */
  readonly title: string;
  readonly total: number;
  readonly lines: readonly DecisionLine[];
  /** Where the rest of them are, and what can be done with all. */
  readonly more?: ReactNode;
}

const Table = styled.table`
  width: 100%;
  border-collapse: collapse;
  table-layout: fixed;
  & th { text-align: left; font-weight: 400; color: var(--ink-soft); font-size: 0.86rem; padding: 4px 8px 4px 0; }
  & thead { border-bottom: 1px solid var(--rule); }
  & tbody th { padding: 18px 0 6px; font-size: 1.07rem; font-weight: 650; color: var(--ink); border-bottom: 1px solid var(--rule); }
  & tbody[data-grave='true'] th { color: var(--caution); }
  & td { padding: 4px 8px 4px 0; height: 34px; border-bottom: 1px solid var(--rule); overflow-wrap: anywhere; }
  & td:last-child, & th:last-child { padding-right: 0; }
  & .figure { text-align: right; overflow-wrap: normal; }
  & tr[data-grave='true'] :is(.day, .what > span:first-child, .now) { color: var(--caution); font-weight: 650; }
  & td button, & td a { min-height: 24px; }
  & td.check { padding-right: 0; }
  & td.picture { padding-block: 0; }
  & td.name-cell { padding-left: 8px; }
  & td.verdict { padding-left: 12px; font-size: 0.93rem; }
  & td.acts button[data-kind='plain'], & td.acts a { padding: 0 0 0 8px; border: 0; }
  & td p { font-size: 0.93rem; }

  /* Where the columns would squeeze what is told, a row is two lines: the picture stands under what it shows, the account under the name. */
  @media (max-width: 1240px) {
    display: block;
    & thead, & colgroup, & td.days { display: none; }
    & tbody, & tbody tr[data-head], & tbody th { display: block; }
    & tr {
      display: grid;
      grid-template: 'when name what now acts' 'when who picture now acts' / 94px 172px minmax(0, 1fr) 134px 188px;
      gap: 0 8px;
      align-items: center;
      padding: 5px 0;
      border-bottom: 1px solid var(--rule);
    }
    &[data-verdicts='true'] tr {
      grid-template: 'check when name what now verdict' 'check when name picture now acts' / 24px 94px 158px minmax(0, 1fr) 118px 206px;
    }
    & tbody tr[data-head] { padding: 0; border: 0; }
    & td { height: auto; padding: 0; border: 0; }
    & td.check { grid-area: check; }
    & td.when { grid-area: when; }
    & td.name-cell { grid-area: name; padding: 0; }
    & td.who { grid-area: who; color: var(--ink-soft); }
    & td.what { grid-area: what; }
    & td.picture { grid-area: picture; }
    & td.now { grid-area: now; }
    & td.acts { grid-area: acts; }
    & td.verdict { grid-area: verdict; padding: 0; }
    & td[colspan] { grid-column: 1 / -1; }
  }

  /* On a telephone: the name with what can be done, then by when and what. */
  @media (max-width: 640px) {
    & tr { grid-template: 'name name acts' 'when what now' / auto minmax(0, 1fr) auto; padding: 2px 0 6px; }
    &[data-verdicts='true'] tr {
      grid-template: 'check name name acts' 'when when what now' 'verdict verdict verdict verdict' / auto auto minmax(0, 1fr) auto;
    }
    & td.acts button, & td.acts a, & td.check label { min-height: 44px; }
    & td.who, & td.picture, & td.name-cell > div { display: none; }
  }
`;

interface DecisionTableProps {
  readonly label: string;
  readonly parts: readonly DecisionLines[];
  /** The scale of the pictures, for their heading. */
  readonly axis: ReactNode;
  /** What stands in the column of the account. */
  readonly who?: string;
  /** Each line has a box to choose it by, and a verdict. */
  readonly hasVerdicts?: boolean;
}

/** What wants a decision, in one grid of columns on every place: by when, which name, what becomes of it, what it costs, what to do. */
export function DecisionTable({ label, parts, axis, who = 'Account', hasVerdicts = false }: DecisionTableProps) {
  // Beside a verdict the account stands under its name.
  const columns = hasVerdicts ? 9 : 8;
  return (
    <Table aria-label={label} data-verdicts={hasVerdicts}>
      <colgroup>
        {hasVerdicts && <col style={{ width: 24 }} />}
        <col style={{ width: 90 }} />
        <col style={{ width: 40 }} />
        <col style={{ width: hasVerdicts ? 184 : 176 }} />
        {!hasVerdicts && <col style={{ width: 84 }} />}
        <col />
        <col style={{ width: (hasVerdicts ? SHORT_LINE_WIDTH : LINE_WIDTH) + 16 }} />
        <col style={{ width: 132 }} />
        {hasVerdicts && <col style={{ width: 206 }} />}
        <col style={{ width: hasVerdicts ? 116 : 170 }} />
      </colgroup>
      <Headings {...{ axis, who, hasVerdicts }} />
      {parts.map(({ title, total, lines, more }) => (
        <tbody key={title} data-grave={lines.some(({ isGrave }) => isGrave)}>
          {title !== '' && (
            <tr data-head>
              <th scope="rowgroup" colSpan={columns}>
                {title}: {total.toLocaleString('en')}
              </th>
            </tr>
          )}
          {lines.map((line) => (
            <Line key={line.key} line={line} hasVerdicts={hasVerdicts} />
          ))}
          {(more || total > lines.length) && (
            <tr>
              <td colSpan={columns} className="soft">
                {total > lines.length && `The first ${lines.length} of ${total.toLocaleString('en')}. `}
                {more}
              </td>
            </tr>
          )}
        </tbody>
      ))}
    </Table>
  );
}

function Headings({ axis, who, hasVerdicts }: Pick<DecisionTableProps, 'axis' | 'who' | 'hasVerdicts'>) {
  return (
    <thead>
      <tr>
        {hasVerdicts && (
          <th scope="col">
            <span className="visually-hidden">Choose</span>
          </th>
        )}
        <th scope="colgroup" colSpan={2}>
          Deadline, days to it
        </th>
        <th scope="col" style={{ paddingLeft: 8 }}>
          Name
        </th>
        {!hasVerdicts && <th scope="col">{who}</th>}
        <th scope="col">If nothing is done</th>
        <th scope="col" style={{ paddingBlock: 0 }}>
          <span className="visually-hidden">Lifecycle</span>
          {axis}
        </th>
        <th scope="col" className="figure">
          now → then
        </th>
        {hasVerdicts && (
          <th scope="col" style={{ paddingLeft: 12 }}>
            Verdict
          </th>
        )}
        <th scope="col">
          <span className="visually-hidden">What to do</span>
        </th>
      </tr>
    </thead>
  );
}

/** The days to a deadline where there is no heading above them. */
function daysInWords(days: string): string {
  if (days === '') return '';
  const count = Number(days);
  if (count === 0) return 'today';
  const counted = Math.abs(count) === 1 ? '1 day' : `${Math.abs(count)} days`;
  return count < 0 ? `${counted} over` : counted;
}

function Line({ line, hasVerdicts }: { line: DecisionLine; hasVerdicts: boolean }) {
  const { check, day, days, name, who, what, picture, figures, verdict, acts, isGrave } = line;
  return (
    <tr data-grave={isGrave}>
      {hasVerdicts && <td className="check">{check}</td>}
      <td className="when day" style={{ whiteSpace: 'nowrap' }}>
        <WideOnly>{day}</WideOnly>
        <InLines>{daysInWords(days)}</InLines>
      </td>
      <td className="figure day days">{days}</td>
      <td className="name-cell">
        {name}
        {hasVerdicts && <div className="soft">{who}</div>}
      </td>
      {!hasVerdicts && <td className="who">{who}</td>}
      <td className="what">{what}</td>
      <td className="picture">{picture}</td>
      <td className="figure now">{figures}</td>
      {hasVerdicts && <td className="verdict">{verdict}</td>}
      <td className="figure acts">{acts}</td>
    </tr>
  );
}

/** Where no heading says what the figure is. */
const InLines = styled.span`display: none; @media (max-width: 1240px) { display: block; color: var(--ink-soft); } @media (max-width: 640px) { color: inherit; }`;
const WideOnly = styled.span`@media (max-width: 640px) { display: none; }`;
