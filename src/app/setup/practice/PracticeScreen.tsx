'use client';
import { useRef, useState } from 'react';
import styled from 'styled-components';
import { isRefusal, type Refusal } from '@/core/refusal';
import { addDays, dayOf, daysUntil, formatDay, type Instant, instant, parseDay } from '@/core/time';
import { Button } from '@/ui/controls/Button';
import { DayField, writtenDay } from '@/ui/controls/DayField';
import { Choice } from '@/ui/controls/Field';
import { Actions } from '@/ui/overlay/Dialog';
import { report } from '@/ui/overlay/Toasts';
import { Fields, Notice, Page, Ruled, Section } from '@/ui/text/Sheet';
import { Progress } from '@/ui/text/States';
import type { PracticeState } from '@/usecases/practice/practice';
import { useTitle } from '../../frame/Frame';
import { useLedger } from '../../frame/LedgerProvider';
import { confirmHolderMailAction, letDayPassAction, setFaultAction } from './actions';

const Until = styled.div`display: flex; gap: 8px; align-items: start; & > button { margin-top: 21px; }`;
const MailText = styled.pre`white-space: pre-wrap; font: inherit; max-width: 80ch; color: var(--ink-soft);`;
const Prose = styled.p`max-width: 72ch; color: var(--ink-soft);`;

const FAULT_WORDS = {
  refused: 'takes no call',
  slow: 'answers too late',
  cut: 'breaks off',
  garbage: 'answers nonsense',
  duplicate: 'answers twice',
  busy: 'says it is busy',
  'result lost': 'does it, says nothing',
  'report refused': 'refuses a restore report',
  'finished later': 'takes it, finishes later',
} as const;
/** What is no registrar. */
const PLACE_WORDS: Readonly<Record<string, string>> = {
  records: 'the registration record',
  marketplace: 'the marketplace',
};
type Fault = keyof typeof FAULT_WORDS;

/** The practice world: its date, letting days pass, and what is to go wrong. */
export function PracticeScreen({
  first,
  places,
}: {
  first: PracticeState | Refusal;
  /** Registrars, and the other servers that can go wrong. */
  places: readonly string[];
}) {
  useTitle('Practice', 'invented registrars on this machine');
  const { reload } = useLedger();
  const [state, setState] = useState(first);
  const [passing, setPassing] = useState<{ done: number; total: number } | null>(null);
  const [until, setUntil] = useState('');
  const [registrar, setRegistrar] = useState(places[0] ?? '');
  const [kind, setKind] = useState<Fault>('result lost');
  const stopped = useRef(false);

  if (isRefusal(state))
    return (
      <Page>
        <Notice>{state.message}</Notice>
      </Page>
    );
  const now = instant(state.now);

  const pass = async (days: number) => {
    stopped.current = false;
    for (let done = 0; done < days && !stopped.current; done += 1) {
      setPassing({ done, total: days });
      const answer = await letDayPassAction();
      if (isRefusal(answer)) {
        report({ text: answer.message, problem: true });
        break;
      }
      setState(answer);
    }
    setPassing(null);
    await reload();
  };

  const passUntil = () => {
    const day = parseDay(writtenDay(until));
    const days = day ? daysUntil(day, now, 'UTC') : 0;
    if (days < 1 || days > 800)
      report({
        text: `Write a day after ${formatDay(dayOf(now))}, like ${formatDay(dayOf(addDays(now, 40)))}.`,
        problem: true,
      });
    else void pass(days);
  };

  const fault = async (which: string, what: string | null) => {
    const answer = await setFaultAction(which, what, 1);
    if (isRefusal(answer)) report({ text: answer.message, problem: true });
    else setState(answer);
  };

  const confirmMail = async (name: string) => {
    const answer = await confirmHolderMailAction(name);
    if (isRefusal(answer)) report({ text: answer.message, problem: true });
    else setState(answer);
    await reload();
  };

  return (
    <Page>
      <Section>
        <h2>{formatDay(dayOf(now))}</h2>
        <Prose>
          Charges, failures and lapses happen there as days pass, and arrive here as they would for real: by the
          registrars’ messages and by asking. The program’s own date goes along.
        </Prose>
        {passing ? (
          <>
            <Progress done={passing.done} total={passing.total} text="Letting days pass" />
            <Actions>
              <Button
                onPress={() => {
                  stopped.current = true;
                }}
              >
                Stop after this day
              </Button>
            </Actions>
          </>
        ) : (
          <>
            <Actions>
              <Button onPress={() => void pass(1)}>Let a day pass</Button>
              <Button onPress={() => void pass(7)}>7 days</Button>
              <Button onPress={() => void pass(30)}>30 days</Button>
            </Actions>
            <Until>
              <DayField label="Until" value={until} onChange={(text) => setUntil(text)} />
              <Button isDisabled={until.trim() === ''} onPress={passUntil}>
                Let the days until then pass
              </Button>
            </Until>
          </>
        )}
      </Section>
      <Section>
        <h2>Faults</h2>
        <p className="soft">A fault strikes the next order or question at a place, once.</p>
        <Fields>
          <Choice
            label="Place"
            value={registrar}
            onChange={setRegistrar}
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
          <Button isDisabled={registrar === ''} onPress={() => void fault(registrar, kind)}>
            Set the fault
          </Button>
        </Actions>
        {Object.keys(state.faults).length > 0 && (
          <Ruled>
            <tbody>
              {Object.entries(state.faults).map(([id, one]) => (
                <tr key={id}>
                  <td>{id}</td>
                  <td>{FAULT_WORDS[one.kind as Fault]}</td>
                  <td>
                    <Button data-kind="plain" onPress={() => void fault(id, null)}>
                      Take it away
                    </Button>
                  </td>
                </tr>
              ))}
            </tbody>
          </Ruled>
        )}
      </Section>
      {state.toConfirm.length > 0 && (
        <Section>
          <h2>Mails to holders that wait to be confirmed</h2>
          <Ruled aria-label="Mails to holders that wait to be confirmed">
            <tbody>
              {state.toConfirm.map(({ name, by }) => (
                <tr key={name}>
                  <td className="name">{name}</td>
                  <td>{by === null ? 'too late: the name is on hold' : `by ${formatDay(dayOf(by as Instant))}`}</td>
                  <td>
                    <Button data-kind="plain" onPress={() => void confirmMail(name)} aria-label={`Confirm ${name}`}>
                      Confirm as the holder
                    </Button>
                  </td>
                </tr>
              ))}
            </tbody>
          </Ruled>
        </Section>
      )}
      {state.mails.length > 0 && (
        <Section>
          <h2>Mails that came to the practice mail server</h2>
          {state.mails.slice(0, 5).map((mail) => (
            <details key={`${mail.at} ${mail.subject}`}>
              <summary>
                {formatDay(dayOf(instant(mail.at)))}: {mail.subject} <span className="soft">to {mail.to}</span>
              </summary>
              <MailText>{mail.text}</MailText>
            </details>
          ))}
        </Section>
      )}
    </Page>
  );
}
