'use client';
import type { CandidateTotals } from '@/core/acquiring';
import { Button } from '@/ui/controls/Button';
import { Acts, Bar } from '@/ui/grid/TotalsBar';
import { namesWords } from '@/ui/text/words';
import { useSave } from '../acts/useSave';
import { wantAction } from './actions';

interface CandidatesFootProps {
  readonly totals: CandidateTotals;
  /** Chosen candidates, each under its cheapest ending. */
  readonly names: readonly string[];
  readonly purpose: string;
  readonly onDone: () => void;
}

/** What the candidates in view come to, or what can be done with those that are chosen. */
export function CandidatesFoot({ totals, names, purpose, onDone }: CandidatesFootProps) {
  const { ask, isBusy } = useSave();
  const count = (figure: number) => <b>{figure.toLocaleString('en')}</b>;
  if (names.length > 0) {
    const want = async () => {
      const asked = wantAction({ names: names.map((name) => ({ name })), purpose });
      if ((await ask(asked, `${namesWords(names.length)} put on the shortlist.`)) !== null) onDone();
    };
    return (
      <Bar aria-label="Chosen candidates">
        <b>{namesWords(names.length)} chosen</b>
        <span>each under its cheapest ending</span>
        <Acts>
          <Button isDisabled={isBusy} onPress={() => void want()}>
            Put them on the shortlist
          </Button>
        </Acts>
      </Bar>
    );
  }
  return (
    <Bar aria-label="Totals of the candidates">
      <b>{totals.candidates === 1 ? 'one candidate' : `${totals.candidates.toLocaleString('en')} candidates`}</b>
      <span>names {count(totals.names)}</span>
      <span>to be had {count(totals.toBeHad)}</span>
      <span>taken {count(totals.taken)}</span>
      <span>not known {count(totals.notKnown)}</span>
    </Bar>
  );
}
