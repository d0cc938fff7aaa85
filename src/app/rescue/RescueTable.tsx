'use client';
import Link from 'next/link';
import { renewableUntil } from '@/core/lifecycle';
import { Button } from '@/ui/controls/Button';
import { Check } from '@/ui/controls/Check';
import { formatAmount } from '@/ui/text/figures';
import { Ruled } from '@/ui/text/Sheet';
import { Wide } from '@/ui/text/Wide';
import { amountsWords, dayWords, deadlineFigures, outlookWords, untilWords } from '@/ui/text/words';
import { useLedger } from '../frame/LedgerProvider';
import { namePage } from '../frame/pages';
import type { RescueRow } from '../frame/views';
import { reasonWords, VERDICT_WORDS } from './verdictWords';

interface RescueTableProps {
  readonly rows: readonly RescueRow[];
  readonly chosen: ReadonlySet<number>;
  readonly onChoose: (nameId: number, isChosen: boolean) => void;
  readonly onDecide: (row: RescueRow) => void;
}

/** Names in danger, the dearest waiting first: last days, costs, what was spent and asked, and the verdict. */
export function RescueTable({ rows, chosen, onChoose, onDecide }: RescueTableProps) {
  return (
    <Wide>
      <Ruled aria-label="Names in danger">
        <thead>
          <tr>
            <th>Name</th>
            <th>If nothing is done</th>
            <th>Ordinary price until</th>
            <th>Restore until</th>
            <th>Available from</th>
            <th className="figure">now → then</th>
            <th className="figure">Spent</th>
            <th className="figure">Asking, offered</th>
            <th>Verdict</th>
          </tr>
        </thead>
        <tbody>
          {rows.map((one) => (
            <RescueLine
              key={one.row.name.id}
              about={one}
              isChosen={chosen.has(one.row.name.id)}
              onChoose={onChoose}
              onDecide={onDecide}
            />
          ))}
        </tbody>
      </Ruled>
    </Wide>
  );
}

interface RescueLineProps extends Pick<RescueTableProps, 'onChoose' | 'onDecide'> {
  readonly about: RescueRow;
  readonly isChosen: boolean;
}

/** One name in danger: each deadline, what waiting costs, and the verdict. */
function RescueLine({ about, isChosen, onChoose, onDecide }: RescueLineProps) {
  const { meta, style, homeCurrency, today } = useLedger();
  const { row, judgement } = about;
  const account = meta?.rules.accounts.find((one) => one.id === row.name.accountId)?.label;
  const { marks, phase } = row;
  const late = phase === 'redemption' || phase === 'pending restore';
  return (
    <tr>
      <td className="whole">
        <Check
          isSelected={isChosen}
          onChange={(on) => onChoose(row.name.id, on)}
          aria-label={`Choose ${row.name.unicode}`}
        />{' '}
        <Link href={namePage(row.name.ascii)} className="name">
          {row.name.unicode}
        </Link>
        <div className="soft">{account}</div>
      </td>
      <td className={late ? 'caution' : undefined}>{outlookWords(row.outlook, style)}</td>
      <td className="whole">{marks === null ? '' : late ? 'over' : untilWords(renewableUntil(marks, today), style)}</td>
      <td className="whole">
        {marks === null ? '' : marks.redemptionEnd > marks.deletion ? untilWords(marks.redemptionEnd, style) : 'none'}
      </td>
      <td className="whole">{marks === null ? '' : dayWords(marks.release, style)}</td>
      <td className="figure">{deadlineFigures(row.deadline, homeCurrency)}</td>
      <td className="figure">{row.name.spent.length > 0 ? amountsWords(row.name.spent) : '–'}</td>
      <td className="figure">
        {row.name.asking ? formatAmount(row.name.asking, true) : '–'}
        {row.name.bestOffer && <div className="soft">{formatAmount(row.name.bestOffer, true)}</div>}
      </td>
      <td>
        <Button
          data-kind="plain"
          onPress={() => onDecide(about)}
          aria-label={`${VERDICT_WORDS[judgement.verdict]}: decide about ${row.name.unicode}`}
        >
          {VERDICT_WORDS[judgement.verdict]}…
        </Button>
        <div className="soft">{reasonWords(judgement.reason)}</div>
      </td>
    </tr>
  );
}
