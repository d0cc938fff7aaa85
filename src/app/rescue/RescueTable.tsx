'use client';
import { decideBy } from '@/core/ledger';
import type { Verdict } from '@/core/rescue';
import { Button } from '@/ui/controls/Button';
import { Check } from '@/ui/controls/Check';
import { Link } from '@/ui/controls/Link';
import { type DecisionLine, DecisionTable } from '@/ui/grid/DecisionTable';
import { LifecycleStrip } from '@/ui/strip/LifecycleStrip';
import { StripAxis } from '@/ui/strip/StripAxis';
import { SHORT_LINE_WIDTH, tableScale } from '@/ui/strip/tableScale';
import { formatAmount } from '@/ui/text/figures';
import { daysToDeadline, dayWords, deadlineFigures, outlookWords, untilWords } from '@/ui/text/words';
import { useLedger } from '../frame/LedgerProvider';
import { namePage } from '../frame/pages';
import type { RescueRow } from '../frame/views';
import { reasonWords, VERDICT_WORDS } from './verdictWords';

interface RescueTableProps {
  readonly label: string;
  readonly rows: readonly RescueRow[];
  readonly total: number;
  readonly chosen: ReadonlySet<number>;
  readonly onChoose: (nameId: number, isChosen: boolean) => void;
  /** Does what the button says: renews, restores, sends the report, drops, or asks for a decision. */
  readonly onAct: (row: RescueRow) => void;
  readonly onDecide: (row: RescueRow) => void;
}

const ACT_WORDS: Readonly<Record<Verdict, string>> = { ...VERDICT_WORDS, undecided: 'Decide' };

/** Names with what becomes of them, what is recommended, and what does it. */
export function RescueTable({ label, rows, total, chosen, onChoose, onAct, onDecide }: RescueTableProps) {
  const { meta, style, homeCurrency, today } = useLedger();
  const scale = tableScale(today, SHORT_LINE_WIDTH);
  const lines = rows.map((about): DecisionLine => {
    const { row, judgement } = about;
    const { name, deadline, outlook, phase } = row;
    const by = decideBy(row);
    const isCharge = deadline?.kind === 'charge' || outlook.kind === 'charge fails';
    return {
      key: String(name.id),
      check: (
        <Check
          isSelected={chosen.has(name.id)}
          onChange={(on) => onChoose(name.id, on)}
          aria-label={`Choose ${name.unicode}`}
        />
      ),
      day: by === null ? '' : isCharge ? dayWords(by, style) : untilWords(by, style),
      days: by === null ? '' : String(daysToDeadline({ at: by, kind: isCharge ? 'charge' : 'lost' }, today, style)),
      name: (
        <Link href={namePage(name.ascii)} className="name">
          {name.unicode}
        </Link>
      ),
      who: meta?.rules.accounts.find(({ id }) => id === name.accountId)?.label,
      what: <span>{outlookWords(outlook, style)}</span>,
      picture: row.strip && (
        <LifecycleStrip strip={row.strip} scale={scale} height={30} day={today} label={outlookWords(outlook, style)} />
      ),
      figures: (
        <>
          {deadlineFigures(deadline, homeCurrency)}
          {(name.bestOffer ?? name.asking) && (
            <div className="soft">
              {name.bestOffer
                ? `offered ${formatAmount(name.bestOffer, true)}`
                : name.asking && `asking ${formatAmount(name.asking, true)}`}
            </div>
          )}
        </>
      ),
      verdict: (
        <>
          <b>{VERDICT_WORDS[judgement.verdict]}</b>
          <span className="soft">: {reasonWords(judgement.reason)}</span>{' '}
          {judgement.verdict !== 'send the report' && judgement.verdict !== 'undecided' && (
            <Button
              data-kind="plain"
              onPress={() => onDecide(about)}
              aria-label={`Overrule the verdict on ${name.unicode}`}
            >
              Overrule…
            </Button>
          )}
        </>
      ),
      acts: (
        <Button
          data-kind="plain"
          onPress={() => onAct(about)}
          aria-label={`${ACT_WORDS[judgement.verdict]} ${name.unicode}`}
        >
          {ACT_WORDS[judgement.verdict]}…
        </Button>
      ),
      isGrave: phase === 'redemption' || deadline?.kind === 'lost' || deadline?.kind === 'auction',
    };
  });
  return (
    <DecisionTable
      label={label}
      hasVerdicts
      parts={[{ title: '', total, lines }]}
      axis={<StripAxis scale={scale} day={today} height={33} />}
    />
  );
}
