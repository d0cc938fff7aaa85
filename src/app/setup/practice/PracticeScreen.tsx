'use client';
import { useState } from 'react';
import styled from 'styled-components';
import { isRefusal, type Refusal } from '@/core/refusal';
import { dayOf, formatDay, type Instant, instant } from '@/core/time';
import { Button } from '@/ui/controls/Button';
import { report } from '@/ui/overlay/Toasts';
import { Notice, Page, Ruled, Section } from '@/ui/text/Sheet';
import type { PracticeState } from '@/usecases/practice/practice';
import { useLedger } from '../../frame/LedgerProvider';
import { useTitle } from '../../frame/PageTitle';
import { AskForNamePart } from './AskForNamePart';
import { confirmHolderMailAction } from './actions';
import { FaultsPart } from './FaultsPart';
import { PassDaysPart } from './PassDaysPart';

const MailText = styled.pre`white-space: pre-wrap; font: inherit; max-width: 80ch; color: var(--ink-soft);`;

interface PracticeScreenProps {
  readonly first: PracticeState | Refusal;
  /** Registrars, and the other servers that can go wrong. */
  readonly places: readonly string[];
}

/** The practice world: its date, letting days pass, what is to go wrong, and the mails that came there. */
export function PracticeScreen({ first, places }: PracticeScreenProps) {
  useTitle('Practice', 'invented registrars on this machine');
  const [state, setState] = useState(first);
  if (isRefusal(state))
    return (
      <Page>
        <Notice>{state.message}</Notice>
      </Page>
    );
  return (
    <Page>
      <PassDaysPart now={instant(state.now)} onState={setState} />
      <FaultsPart places={places} faults={state.faults} onState={setState} />
      <AskForNamePart onState={setState} />
      {state.toConfirm.length > 0 && <ToConfirmPart toConfirm={state.toConfirm} onState={setState} />}
      {state.mails.length > 0 && <MailsPart mails={state.mails} />}
    </Page>
  );
}

/** Mails that a new holder has to confirm before a day, else the name stops. */
function ToConfirmPart({
  toConfirm,
  onState,
}: Pick<PracticeState, 'toConfirm'> & { onState: (state: PracticeState) => void }) {
  const { reload } = useLedger();
  const confirm = async (name: string) => {
    const answer = await confirmHolderMailAction(name);
    if (isRefusal(answer)) report({ text: answer.message, problem: true });
    else onState(answer);
    await reload();
  };
  return (
    <Section>
      <h2>Mails to holders that wait to be confirmed</h2>
      <Ruled aria-label="Mails to holders that wait to be confirmed">
        <tbody>
          {toConfirm.map(({ name, by }) => (
            <tr key={name}>
              <td className="name">{name}</td>
              <td>{by === null ? 'too late: the name is on hold' : `by ${formatDay(dayOf(by as Instant))}`}</td>
              <td>
                <Button data-kind="plain" onPress={() => void confirm(name)} aria-label={`Confirm ${name}`}>
                  Confirm as the holder
                </Button>
              </td>
            </tr>
          ))}
        </tbody>
      </Ruled>
    </Section>
  );
}

function MailsPart({ mails }: Pick<PracticeState, 'mails'>) {
  return (
    <Section>
      <h2>Mails that came to the practice mail server</h2>
      {mails.slice(0, 5).map((mail) => (
        <details key={`${mail.at} ${mail.subject}`}>
          <summary>
            {formatDay(dayOf(instant(mail.at)))}: {mail.subject} <span className="soft">to {mail.to}</span>
          </summary>
          <MailText>{mail.text}</MailText>
        </details>
      ))}
    </Section>
  );
}
