'use client';
import { useEffect, useState } from 'react';
import { Link } from '@/ui/controls/Link';
import { shareWords } from '@/ui/text/prospectWords';
import { Answer, Head, Page, Section } from '@/ui/text/Sheet';
import { Failed, Loading } from '@/ui/text/States';
import { countOf } from '@/ui/text/todayWords';
import { amountsWords, namesWords } from '@/ui/text/words';
import { DropDialog } from '../../acts/drop/DropDialog';
import { useLedger } from '../../frame/LedgerProvider';
import { useTitle } from '../../frame/PageTitle';
import type { AllJudgedView } from '../../frame/views';
import { ChosenFoot } from '../ChosenFoot';
import { DecideDialog } from '../DecideDialog';
import { RescueTable } from '../RescueTable';
import { RescueTabs } from '../RescueTabs';
import { useActing } from '../useActing';

const SHOWN = 100;

/** Every name judged for its next renewal, in danger or not: what costs more than it may bring comes first. */
export function AllNamesScreen() {
  const { worker, meta, problem, reload } = useLedger();
  const [view, setView] = useState<AllJudgedView | null>(null);
  const { act, choose, chosen, setChosen, deciding, setDeciding, leaving, setLeaving } = useActing();
  useTitle('Rescue', 'which of mine should I drop?');
  useEffect(() => {
    if (!worker || !meta) return;
    let stale = false;
    void worker.judgeAll(SHOWN).then((found) => !stale && setView(found));
    return () => {
      stale = true;
    };
  }, [worker, meta]);
  if (problem) return <Failed text={problem} onRetry={() => void reload()} />;
  if (view === null || meta === null) return <Loading text="Judging every name" />;
  const { rows, drop, undecided, keep, saving } = view;
  const picked = rows.filter(({ row }) => chosen.has(row.name.id));
  return (
    <>
      <RescueTabs />
      <Page style={{ flex: 1, paddingBottom: 72 }}>
        <Head>
          <Answer>
            {drop === 0
              ? 'No name costs more than it may bring.'
              : `${countOf(drop, 'name costs', 'names cost')} more than ${drop === 1 ? 'it' : 'they'} may bring: dropping ${drop === 1 ? 'it' : 'them'} saves ${amountsWords(saving)} a year.`}
          </Answer>
          <p>
            {namesWords(keep)} {keep === 1 ? 'pays' : 'pay'} for {keep === 1 ? 'itself' : 'themselves'} or{' '}
            {keep === 1 ? 'is' : 'are'} kept on purpose; {namesWords(undecided)} {undecided === 1 ? 'is' : 'are'}{' '}
            undecided. By a chance of sale of {shareWords(meta.rules.assumptions.chance)} a year before own sales, and
            all else that is assumed in <Link href="/prospects">Prospects</Link>, unless a name has its own.
          </p>
        </Head>
        {picked.length > 0 && <ChosenFoot picked={picked} onDrop={setLeaving} onClear={() => setChosen(new Set())} />}
        <Section aria-label="All names">
          <RescueTable
            label="All names"
            rows={rows}
            total={drop + undecided + keep}
            chosen={chosen}
            onChoose={choose}
            onAct={act}
            onDecide={setDeciding}
          />
        </Section>
        <DecideDialog about={deciding} onClose={() => setDeciding(null)} />
        <DropDialog isOpen={leaving.length > 0} onClose={() => setLeaving([])} rows={leaving} />
      </Page>
    </>
  );
}
