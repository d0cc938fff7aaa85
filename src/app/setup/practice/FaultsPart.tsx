'use client';
import { useState } from 'react';
import { isRefusal } from '@/core/refusal';
import { Button } from '@/ui/controls/Button';
import { Choice } from '@/ui/controls/Field';
import { Actions } from '@/ui/overlay/Dialog';
import { report } from '@/ui/overlay/Toasts';
import { Fields, Ruled, Section } from '@/ui/text/Sheet';
import type { PracticeState } from '@/usecases/practice/practice';
import { setFaultAction } from './actions';

const FAULT_WORDS = {
  refused: 'takes no call',
  slow: 'answers too late',
  cut: 'breaks off',
  garbage: 'answers nonsense',
  duplicate: 'answers twice',
  busy: 'says it is busy',
  'result lost': 'does it, says nothing',
  'report refused': 'refuses a restore report',
  'code wrong': 'finds a transfer’s code wrong',
  'transfer rejected': 'has a transfer to it rejected by the losing side',
  'approval lost': 'loses the approval of a transfer',
  'zone not loaded': 'does not load the zone of a name that comes by transfer',
  'finished later': 'takes it, finishes later',
} as const;
/** What is no registrar. */
const PLACE_WORDS: Readonly<Record<string, string>> = {
  records: 'the registration record',
  marketplace: 'the marketplace',
};
type Fault = keyof typeof FAULT_WORDS;

interface FaultsPartProps {
  readonly places: readonly string[];
  readonly faults: PracticeState['faults'];
  readonly onState: (state: PracticeState) => void;
}

/** What is to go wrong at a place, once. */
export function FaultsPart({ places, faults, onState }: FaultsPartProps) {
  const [place, setPlace] = useState(places[0] ?? '');
  const [kind, setKind] = useState<Fault>('result lost');
  const set = async (which: string, what: string | null) => {
    const answer = await setFaultAction(which, what, 1);
    if (isRefusal(answer)) report({ text: answer.message, problem: true });
    else onState(answer);
  };
  return (
    <Section>
      <h2>Faults</h2>
      <p className="soft">A fault strikes the next order or question at a place, once.</p>
      <Fields>
        <Choice
          label="Place"
          value={place}
          onChange={setPlace}
          options={places.map((id) => ({ value: id, text: PLACE_WORDS[id] ?? id }))}
        />
        <Choice
          label="Fault"
          value={kind}
          onChange={setKind}
          options={(Object.keys(FAULT_WORDS) as Fault[]).map((id) => ({ value: id, text: FAULT_WORDS[id] }))}
        />
      </Fields>
      <Actions>
        <Button onPress={() => void set(place, kind)}>Set the fault</Button>
      </Actions>
      {Object.keys(faults).length > 0 && (
        <Ruled>
          <tbody>
            {Object.entries(faults).map(([id, one]) => (
              <tr key={id}>
                <td>{PLACE_WORDS[id] ?? id}</td>
                <td>{FAULT_WORDS[one.kind as Fault]}</td>
                <td>
                  <Button data-kind="plain" onPress={() => void set(id, null)}>
                    Take it away
                  </Button>
                </td>
              </tr>
            ))}
          </tbody>
        </Ruled>
      )}
    </Section>
  );
}
