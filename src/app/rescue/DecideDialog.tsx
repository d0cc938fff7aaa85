'use client';
import { useState } from 'react';
import { formatDecimal, readPercent } from '@/core/money';
import { isRefusal } from '@/core/refusal';
import { AmountField } from '@/ui/controls/AmountField';
import { Button } from '@/ui/controls/Button';
import { Choice, Field } from '@/ui/controls/Field';
import { Actions, Dialog } from '@/ui/overlay/Dialog';
import { reportDone } from '../answers';
import { useLedger } from '../frame/LedgerProvider';
import type { RescueRow } from '../frame/views';
import { decideRescueAction } from './actions';
import { reasonWords, VERDICT_WORDS } from './verdictWords';

/** Overruling the verdict on a name, for this term, or its chance of a sale. */
export function DecideDialog({
  about,
  onClose,
  onUndo,
}: {
  about: RescueRow | null;
  onClose: () => void;
  onUndo: (batchId: number) => Promise<void>;
}) {
  return (
    <Dialog title={`Decide about ${about?.row.name.unicode ?? ''}`} isOpen={about !== null} onClose={onClose}>
      {about && <DecideForm key={about.row.name.id} about={about} onClose={onClose} onUndo={onUndo} />}
    </Dialog>
  );
}

const COMPUTED = 'as computed';

function DecideForm({
  about: { row, judgement },
  onClose,
  onUndo,
}: {
  about: RescueRow;
  onClose: () => void;
  onUndo: (batchId: number) => Promise<void>;
}) {
  const { homeCurrency, reload } = useLedger();
  const { name } = row;
  const [verdict, setVerdict] = useState<string>(name.rescue ?? COMPUTED);
  const [chance, setChance] = useState(name.saleChance === null ? '' : String(Math.round(name.saleChance * 1e4) / 100));

  const currency = name.bestOffer?.currency ?? name.asking?.currency ?? homeCurrency;
  const [offer, setOffer] = useState({ isEmpty: name.bestOffer === null, read: name.bestOffer });
  const [problem, setProblem] = useState<{ chance?: string; offer?: string }>({});

  const save = async () => {
    const usualChance = chance.trim() === '';
    const likely = usualChance ? 0 : readPercent(chance);
    if (isRefusal(likely)) {
      setProblem({ chance: likely.message });
      return;
    }
    // What is no amount is refused where it stands.
    if (!offer.isEmpty && offer.read === null) return;
    const answer = await decideRescueAction({
      nameIds: [name.id],
      verdict,
      ...(offer.read === null ? { noOffer: true } : { bestOffer: formatDecimal(offer.read), currency }),
      ...(usualChance ? { usualChance } : { chance: likely / 100 }),
    });
    setProblem(isRefusal(answer) && answer.field === 'bestOffer' ? { offer: answer.message } : {});
    if (!reportDone(answer, (batchId) => void onUndo(batchId))) return;
    onClose();
    await reload();
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
          { value: COMPUTED, text: 'As computed' },
          { value: 'keep', text: 'Keep it' },
          { value: 'let go', text: 'Let it go' },
        ]}
      />
      <Field
        label="Its chance of a sale in a year, percent"
        value={chance}
        onChange={setChance}
        inputMode="decimal"
        hint="empty: the usual chance"
        problem={problem.chance ?? null}
      />
      <AmountField
        label={`Best offer so far, ${currency}`}
        currency={currency}
        amount={name.bestOffer}
        onChange={(text, read) => setOffer({ isEmpty: text.trim() === '', read })}
        problem={problem.offer ?? null}
      />
      <Actions>
        <Button data-kind="primary" onPress={() => void save()}>
          Remember it
        </Button>
        <Button onPress={onClose}>Cancel</Button>
      </Actions>
    </>
  );
}
