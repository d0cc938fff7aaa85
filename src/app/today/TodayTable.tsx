'use client';
import type { ReactNode } from 'react';
import styled from 'styled-components';
import { LINE_WIDTH } from '@/ui/strip/tableScale';

/** One line of Today: whatever it is about, it says by when, what, and what mends it at the same places. */
export interface TodayLine {
  readonly key: string;
  /** The day by which it wants a decision, in words, and the days to it. */
  readonly day: string;
  readonly days: string;
  readonly name: ReactNode;
  /** The account, the buyer, the marketplace. */
  readonly who: ReactNode;
  readonly what: ReactNode;
  readonly picture: ReactNode;
  readonly figures: ReactNode;
  readonly acts: ReactNode;
  readonly isGrave: boolean;
}

/** Lines that lead to the same. */
export interface TodayLines {
  readonly title: string;
  readonly total: number;
  readonly lines: readonly TodayLine[];
  /** Where the rest of them are, and what can be done with all. */
  readonly more?: ReactNode;
}

const Table = styled.table`
  width: 100%;
  border-collapse: collapse;
  table-layout: fixed;
  & th { text-align: left; font-weight: 400; color: var(--ink-soft); font-size: 0.86rem; padding: 4px 8px 4px 0; }
  & tbody th { padding: 18px 0 6px; font-size: 1.07rem; font-weight: 650; color: var(--ink); border-bottom: 1px solid var(--rule); }
  & tbody[data-grave='true'] th { color: var(--caution); }
  & td { padding: 4px 8px 4px 0; height: 34px; border-bottom: 1px solid var(--rule); overflow-wrap: anywhere; }
  & td:last-child, & th:last-child { padding-right: 0; }
  & .figure { text-align: right; overflow-wrap: normal; }
  & tr[data-grave='true'] :is(.day, .what > span:first-child, .now) { color: var(--caution); font-weight: 650; }
  & td button, & td a { min-height: 24px; }
  & td.picture { padding-block: 0; }
  & td.name-cell { padding-left: 8px; }
  & td.acts button[data-kind='plain'], & td.acts a { padding: 0 0 0 8px; border: 0; }
  & td p { font-size: 0.93rem; }

  /* On a telephone a row becomes two lines: the name with what can be done, then by when and what. */
  @media (max-width: 640px) {
    display: block;
    & thead, & colgroup { display: none; }
    & tbody, & tbody tr:first-child { display: block; }
    & tbody th { display: block; }
    & tr { display: grid; grid-template-columns: auto minmax(0, 1fr) auto; gap: 0 8px; padding: 2px 0 6px; border-bottom: 1px solid var(--rule); }
    & tbody tr:first-child { padding: 0; border: 0; }
    & td { height: auto; padding: 0; border: 0; }
    & td.name-cell { grid-area: 1 / 1 / auto / 3; align-self: center; padding: 0; }
    & td.acts { grid-area: 1 / 3; }
    & td.acts button, & td.acts a { min-height: 44px; }
    & td.when { grid-area: 2 / 1; }
    & td.what { grid-area: 2 / 2; }
    & td.now { grid-area: 2 / 3; }
    & td.days, & td.who, & td.picture { display: none; }
    & td[colspan] { grid-area: 1 / 1 / auto / 4; }
  }
`;

/** Everything that wants a decision, in one grid of columns: what loses a name first. */
export function TodayTable({ parts, axis }: { parts: readonly TodayLines[]; axis: ReactNode }) {
  return (
    <Table aria-label="What wants a decision">
      <colgroup>
        <col style={{ width: 84 }} />
        <col style={{ width: 40 }} />
        <col style={{ width: 172 }} />
        <col style={{ width: 88 }} />
        <col />
        <col style={{ width: LINE_WIDTH + 16 }} />
        <col style={{ width: 126 }} />
        <col style={{ width: 164 }} />
      </colgroup>
      <thead>
        <tr>
          <th scope="col">Deadline</th>
          <th scope="col" className="figure" style={{ whiteSpace: 'nowrap' }}>
            days to it
          </th>
          <th scope="col" style={{ paddingLeft: 8 }}>
            Name
          </th>
          <th scope="col">Account</th>
          <th scope="col">If nothing is done</th>
          <th scope="col" style={{ paddingBlock: 0 }}>
            <span className="visually-hidden">Lifecycle</span>
            {axis}
          </th>
          <th scope="col" className="figure">
            now → then
          </th>
          <th scope="col">
            <span className="visually-hidden">What to do</span>
          </th>
        </tr>
      </thead>
      {parts.map(({ title, total, lines, more }) => (
        <tbody key={title} data-grave={lines.some(({ isGrave }) => isGrave)}>
          <tr>
            <th scope="rowgroup" colSpan={8}>
              {title}: {total.toLocaleString('en')}
            </th>
          </tr>
          {lines.map((line) => (
            <Line key={line.key} line={line} />
          ))}
          {(more || total > lines.length) && (
            <tr>
              <td colSpan={8} className="soft">
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

function Line({ line }: { line: TodayLine }) {
  const { day, days, name, who, what, picture, figures, acts, isGrave } = line;
  return (
    <tr data-grave={isGrave}>
      <td className="when day" style={{ whiteSpace: 'nowrap' }}>
        <WideOnly>{day}</WideOnly>
        <PhoneOnly>{days && `${days} days`}</PhoneOnly>
      </td>
      <td className="figure day days">{days}</td>
      <td className="name-cell">{name}</td>
      <td className="who">{who}</td>
      <td className="what">{what}</td>
      <td className="picture">{picture}</td>
      <td className="figure now">{figures}</td>
      <td className="figure acts">{acts}</td>
    </tr>
  );
}

const PhoneOnly = styled.span`display: none; @media (max-width: 640px) { display: inline; }`;
const WideOnly = styled.span`@media (max-width: 640px) { display: none; }`;
