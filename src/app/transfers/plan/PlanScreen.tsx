'use client';
import { useEffect, useState } from 'react';
import { Button } from '@/ui/controls/Button';
import { Actions } from '@/ui/overlay/Dialog';
import { Answer, Page } from '@/ui/text/Sheet';
import { Failed, Loading } from '@/ui/text/States';
import { yearsWords } from '@/ui/text/words';
import { namesToMove } from '../../acts/move/useMove';
import { useLedger } from '../../frame/LedgerProvider';
import { useTitle } from '../../frame/PageTitle';
import type { WaveView } from '../../frame/views';
import { LeavingPart, LeftPart } from './LeavingPart';
import { PlanFields } from './PlanFields';
import { planSentence } from './planWords';
import { StartDialog } from './StartDialog';
import { useMoney } from './useMoney';
import { FIRST_WISH, usePlan } from './usePlan';
import { WavePart } from './WavePart';

interface PlanScreenProps {
  /** The names that were chosen in the ledger are planned. */
  readonly isChosen: boolean;
  readonly underWay: readonly number[];
}

/** Which names to move where and when: weighed over the years, within what may be spent, gathered into a few days. */
export function PlanScreen({ isChosen, underWay }: PlanScreenProps) {
  const { meta, problem, reload } = useLedger();
  const money = useMoney();
  const [wish, setWish] = useState(FIRST_WISH);
  const [starting, setStarting] = useState<readonly WaveView[]>([]);
  const [chosen, setChosen] = useState<readonly number[]>([]);
  const { plan, isOld } = usePlan(wish, underWay);
  useTitle('Transfers', `a plan over ${yearsWords(wish.years)}`);
  useEffect(() => {
    const nameIds = namesToMove();
    setChosen(nameIds);
    if (isChosen && nameIds.length > 0) setWish((now) => ({ ...now, which: { kind: 'chosen', nameIds } }));
  }, [isChosen]);
  if (problem) return <Failed text={problem} onRetry={() => void reload()} />;
  if (plan === null || meta === null) return <Loading text="Weighing every transfer" />;
  return (
    <Page>
      <PlanFields wish={wish} chosen={chosen} onChange={setWish} />
      <Answer aria-live="polite" aria-busy={isOld}>
        {planSentence(plan, wish.years, money)}
      </Answer>
      {plan.waves.length > 0 && (
        <Actions>
          <Button data-kind="primary" isDisabled={isOld} onPress={() => setStarting(plan.waves)}>
            Move all of these…
          </Button>
        </Actions>
      )}
      {plan.waves.map((wave) => (
        <WavePart
          key={wave.at}
          wave={wave}
          years={wish.years}
          isOnly={plan.waves.length === 1}
          onStart={() => setStarting([wave])}
        />
      ))}
      <LeavingPart accounts={plan.accounts} />
      <LeftPart left={plan.left} />
      {starting.length > 0 && <StartDialog waves={starting} onClose={() => setStarting([])} />}
    </Page>
  );
}
