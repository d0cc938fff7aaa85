import styled from 'styled-components';
import { Check } from '@/ui/controls/Check';
import { Link } from '@/ui/controls/Link';
import { LifecycleStrip } from '@/ui/strip/LifecycleStrip';
import { StripAxis } from '@/ui/strip/StripAxis';
import { SHORT_LINE_WIDTH, tableScale } from '@/ui/strip/tableScale';
import { formatAmount } from '@/ui/text/figures';
import { roughly, shareWords } from '@/ui/text/prospectWords';
import { Wide } from '@/ui/text/Wide';
import { dayWords } from '@/ui/text/words';
import { useLedger } from '../../frame/LedgerProvider';
import { namePage } from '../../frame/pages';
import type { RankedRow, RowView } from '../../frame/views';
import { leastWords, STAND_WORDS, whyWords } from './standWords';

const Table = styled.table`
  width: 100%;
  border-collapse: collapse;
  table-layout: fixed;
  & th { text-align: left; font-weight: 400; color: var(--ink-soft); font-size: 0.86rem; padding: 4px 10px 4px 0; vertical-align: bottom; }
  & thead { border-bottom: 1px solid var(--rule); }
  & td { padding: 6px 10px 0 0; vertical-align: middle; }
  & td.why { padding: 0 10px 7px 0; font-size: 0.93rem; }
  & tbody { border-bottom: 1px solid var(--rule); }
  & .figure { text-align: right; }
  & td.check { vertical-align: top; padding-top: 8px; }
  /* What is gone to by keyboard stops above what is told of the chosen names. */
  & td.check label { scroll-margin-bottom: 200px; }
`;

interface WorthTableProps {
  readonly rows: readonly RankedRow[];
  readonly chosen: ReadonlyMap<number, RowView>;
  readonly onChoose: (row: RowView, isChosen: boolean) => void;
}

/** Names with what their next year costs, what a sale may bring and how likely it is, what keeping is worth, and the sentence why. */
export function WorthTable({ rows, chosen, onChoose }: WorthTableProps) {
  const { today } = useLedger();
  const scale = tableScale(today, SHORT_LINE_WIDTH);
  return (
    <Wide least={1000}>
      <Table aria-label="Names by what their next year is worth">
        <colgroup>
          {[30, 98, 182, SHORT_LINE_WIDTH + 14, 90, 74, 88, 106, 84].map((width, i) => (
            // biome-ignore lint/suspicious/noArrayIndexKey: a column is known by its place
            <col key={i} style={{ width }} />
          ))}
          <col />
        </colgroup>
        <thead>
          <tr>
            <th scope="col">
              <span className="visually-hidden">Choose</span>
            </th>
            <th scope="col">Charged</th>
            <th scope="col">Name</th>
            <th scope="col" style={{ paddingBlock: 0 }}>
              <span className="visually-hidden">Lifecycle</span>
              <StripAxis scale={scale} day={today} height={33} />
            </th>
            <th scope="col" className="figure">
              Next year costs
            </th>
            <th scope="col" className="figure">
              Sells a year
            </th>
            <th scope="col" className="figure">
              A sale leaves
            </th>
            <th scope="col" className="figure">
              Keeping is worth
            </th>
            <th scope="col" className="figure" style={{ paddingRight: 16 }}>
              Asking
            </th>
            <th scope="col">Worth another year</th>
          </tr>
        </thead>
        {rows.map((one) => (
          <Line
            key={one.row.name.id}
            one={one}
            scale={scale}
            isChosen={chosen.has(one.row.name.id)}
            onChoose={(on) => onChoose(one.row, on)}
          />
        ))}
      </Table>
    </Wide>
  );
}

/** A name: its figures in a line, and under them the sentence why. */
function Line({
  one: { row, ranked },
  scale,
  isChosen,
  onChoose,
}: {
  one: RankedRow;
  scale: ReturnType<typeof tableScale>;
  isChosen: boolean;
  onChoose: (isChosen: boolean) => void;
}) {
  const { meta, style, today, homeCurrency } = useLedger();
  const { name, strip } = row;
  const { next, worth, stand } = ranked;
  const why = whyWords(ranked, homeCurrency, style);
  const money = (minor: number) => formatAmount({ minor: Math.round(minor), currency: homeCurrency });
  const value = worth?.keep.value ?? null;
  return (
    <tbody>
      <tr>
        <td rowSpan={2} className="check">
          <Check isSelected={isChosen} onChange={onChoose} aria-label={`Choose ${name.unicode}`} />
        </td>
        <td>{next ? dayWords(next.firstAt, style) : <span className="soft">not known</span>}</td>
        <td>
          <Link href={namePage(name.ascii)} className="name">
            {name.unicode}
          </Link>
        </td>
        <td>{strip && <LifecycleStrip strip={strip} scale={scale} height={24} day={today} label={why} />}</td>
        <td className="figure">{next ? money(next.costs[0] ?? 0) : <span className="soft">not known</span>}</td>
        <td className="figure">{worth && shareWords(worth.keep.chance)}</td>
        <td className="figure">{worth && roughly(worth.proceeds, homeCurrency)}</td>
        <td className={value !== null && value < 0 ? 'figure caution' : 'figure'}>
          {value !== null && `${value < 0 ? '−' : '+'}${money(Math.abs(value))}`}
        </td>
        <td className="figure">
          {name.asking ? formatAmount(name.asking, true) : <span className="soft">nothing</span>}
        </td>
        <td>
          <b>{STAND_WORDS[stand]}</b> <span className="soft">{leastWords(ranked, homeCurrency)}</span>
        </td>
      </tr>
      <tr>
        <td className="why soft">{meta?.rules.accounts.find(({ id }) => id === name.accountId)?.label}</td>
        <td colSpan={8} className="why soft">
          {why}
        </td>
      </tr>
    </tbody>
  );
}
