'use client';
import { useRef, useState } from 'react';
import styled from 'styled-components';
import { isRefusal, type Refusal, refuse } from '@/core/refusal';
import { addDays, dayOf, daysUntil, formatDay, type Instant, parseDay } from '@/core/time';
import { Button } from '@/ui/controls/Button';
import { DayField, dayIn } from '@/ui/controls/DayField';
import { Form } from '@/ui/controls/Form';
import { Actions } from '@/ui/overlay/Dialog';
import { report } from '@/ui/overlay/Toasts';
import { Section } from '@/ui/text/Sheet';
import { Progress } from '@/ui/text/States';
import type { PracticeState } from '@/usecases/practice/practice';
import { useLedger } from '../../frame/LedgerProvider';
import { letDayPassAction } from './actions';

const Until = styled.div`display: flex; gap: 8px; align-items: start; & > button { margin-top: 21px; }`;
const Prose = styled.p`max-width: 72ch; color: var(--ink-soft);`;

const MOST_DAYS = 800;

interface PassDaysPartProps {
  readonly now: Instant;
  readonly onState: (state: PracticeState) => void;
}

/** The date of the practice world, and letting days pass there, one after the other. */
export function PassDaysPart({ now, onState }: PassDaysPartProps) {
  const { reload } = useLedger();
  const [passing, setPassing] = useState<{ done: number; total: number } | null>(null);
  const [refused, setRefused] = useState<Refusal | null>(null);
  const stopped = useRef(false);

  const pass = async (days: number) => {
    stopped.current = false;
    for (let done = 0; done < days && !stopped.current; done += 1) {
      setPassing({ done, total: days });
      const answer = await letDayPassAction();
      if (isRefusal(answer)) {
        report({ text: answer.message, problem: true });
        break;
      }
      onState(answer);
    }
    setPassing(null);
    await reload();
  };
  const passUntil = async (form: FormData) => {
    const day = parseDay(dayIn(form, 'until'));
    const days = day ? daysUntil(day, now, 'UTC') : 0;
    const isWithin = days >= 1 && days <= MOST_DAYS;
    const [first, like] = [now, addDays(now, 40)].map((at) => formatDay(dayOf(at)));
    setRefused(isWithin ? null : refuse('day-outside', `Write a day after ${first}, like ${like}.`, 'until'));
    if (isWithin) await pass(days);
  };

  return (
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
          <Form aria-label="Let the days until a day pass" refused={refused} onSubmit={passUntil}>
            <Until>
              <DayField name="until" label="Until" />
              <Button type="submit">Let the days until then pass</Button>
            </Until>
          </Form>
        </>
      )}
    </Section>
  );
}
