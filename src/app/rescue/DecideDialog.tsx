'use client';
import { useState } from 'react';
import { formatDecimal, readPercent } from '@/core/money';
import { isRefusal } from '@/core/refusal';
import { AmountField } from '@/ui/controls/AmountField';
import { Button } from '@/ui/controls/Button';
import { Choice, Field } from '@/ui/controls/Field';
import { Actions, Dialog } from '@/ui/overlay/Dialog';
import { useAct } from '../acts/useAct';
import { useLedger } from '../frame/LedgerProvider';
import type { RescueRow } from '../frame/views';
import { decideRescueAction } from './actions';
import { reasonWords, VERDICT_WORDS } from './verdictWords';

/** Overruling the verdict on a name, for this term, or its chance of a sale. */
export function DecideDialog({ about, onClose }: { about: RescueRow | null; onClose: () => void }) {
  return (
    <Dialog title={`Decide about ${about?.row.name.unicode ?? ''}`} isOpen={about !== null} onClose={onClose}>
      {about && <DecideForm key={about.row.name.id} about={about} onClose={onClose} />}
    </Dialog>
  );
}

const COMPUTED = 'as computed';

function DecideForm({ about: { row, judgement }, onClose }: { about: RescueRow; onClose: () => void }) {
  const { homeCurrency } = useLedger();
  const { act, isBusy, refused } = useAct();
  const { name } = row;
  const [verdict, setVerdict] = useState<string>(name.rescue ?? COMPUTED);
  const [chance, setChance] = useState(name.saleChance === null ? '' : String(Math.round(name.saleChance * 1e4) / 100));

  const currency = name.bestOffer?.currency ?? name.asking?.currency ?? homeCurrency;
  const [offer, setOffer] = useState({ isEmpty: name.bestOffer === null, read: name.bestOffer });
  const [chanceProblem, setChanceProblem] = useState<string | null>(null);

  const save = async () => {
    const usualChance = chance.trim() === '';
    const likely = usualChance ? 0 : readPercent(chance);
    if (isRefusal(likely)) {
      setChanceProblem(likely.message);
      return;
    }
    setChanceProblem(null);
    // What is no amount is refused where it stands.
    if (!offer.isEmpty && offer.read === null) return;
    const request = {
      nameIds: [name.id],
      verdict,
      ...(offer.read === null ? { noOffer: true } : { bestOffer: formatDecimal(offer.read), currency }),
      ...(usualChance ? { usualChance } : { chance: likely / 100 }),
    };
    if (await act(() => decideRescueAction(request))) onClose();
  };

  return (
    <>
      <p>
        {VERDICT_WORDS[judgement.verdict]}: {reasonWords(judgement.reason)}.
      </p>
      <Choice
        label="What is to be done"
        value={verdict}
        onChange={setVerdict}
        options={[
          { value: COMPUTED, text: 'As recommended' },
          { value: 'keep', text: 'Keep it' },
          { value: 'drop', text: 'Drop it' },
        ]}
      />
      <Field
        label="Its chance of a sale in a year, percent"
        value={chance}
        onChange={setChance}
        inputMode="decimal"
        hint="empty: the usual chance"
        problem={chanceProblem}
      />
      <AmountField
        label={`Best offer so far, ${currency}`}
        currency={currency}
        amount={name.bestOffer}
        onChange={(text, read) => setOffer({ isEmpty: text.trim() === '', read })}
        problem={refused?.field === 'bestOffer' ? refused.message : null}
      />
      <Actions>
        <Button data-kind="primary" isDisabled={isBusy} onPress={() => void save()}>
          Save the decision
        </Button>
        <Button onPress={onClose}>Cancel</Button>
      </Actions>
    </>
  );
}
