'use client';
import { parseDate } from '@internationalized/date';
import { CalendarDays, ChevronLeft, ChevronRight } from 'lucide-react';
import { useState } from 'react';
import {
  Button as AriaButton,
  Calendar,
  CalendarCell,
  CalendarGrid,
  Dialog,
  DialogTrigger,
  Heading,
  Popover,
} from 'react-aria-components';
import styled from 'styled-components';
import { isRefusal, type Refusal } from '@/core/refusal';
import { type Day, dayOf, formatDay, parseDay, readDate, type TermEnd } from '@/core/time';
import { Field, type FieldProps } from './Field';

const Line = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 4px;
  align-items: start;
  & > button { margin-top: 21px; }
  &[data-bare='true'] > button { margin-top: 0; }
`;

const Open = styled(AriaButton)`
  display: grid;
  place-items: center;
  width: 32px;
  height: 32px;
  border: 1px solid var(--rule);
  border-radius: 3px;
  background: var(--sheet);
  color: var(--ink);
  cursor: pointer;
`;

const Sheet = styled(Popover)`
  padding: 12px;
  border: 1px solid var(--rule);
  border-radius: 3px;
  background: var(--sheet);
  box-shadow: 0 4px 16px rgb(10 25 35 / 18%);
  & header { display: flex; justify-content: space-between; align-items: center; gap: 8px; }
  & h2 { font-size: 1rem; }
  & td, & th { text-align: center; font-weight: 400; }
`;

const Cell = styled(CalendarCell)`
  display: grid;
  place-items: center;
  width: 32px;
  height: 30px;
  border-radius: 2px;
  cursor: pointer;
  &[data-hovered] { background: var(--bearing-pale); }
  &[data-selected] { background: var(--bearing); color: var(--on-bearing); }
  &[data-focus-visible] { outline: 2px solid var(--bearing); outline-offset: 1px; }
  &[data-outside-month] { display: none; }
`;

interface DayFieldProps extends Omit<FieldProps, 'value' | 'defaultValue' | 'onChange' | 'placeholder'> {
  /** What is typed, where the caller keeps it. */
  readonly value?: string;
  readonly defaultValue?: string;
  /** `read` is `null` for nothing and for what is no day. */
  readonly onChange?: (text: string, read: TermEnd | null) => void;
  /** A time of day may stand behind the day. */
  readonly time?: boolean;
}

/** What was typed, as a day; ambiguous numbers are refused with both readings in mind. */
function readTypedDay(text: string, time: boolean): TermEnd | Refusal | null {
  if (text.trim() === '') return null;
  const read = readDate(text, null);
  if (isRefusal(read))
    return read.code === 'date-ambiguous' ? { ...read, message: 'Write the month as a word: 3 Feb 2027.' } : read;
  return time || read.precision === 'day'
    ? read
    : { kind: 'refusal', code: 'day-alone', message: 'Write the day alone.' };
}

/** A typed day as `YYYY-MM-DD`; as it was typed where it is none. */
export function writtenDay(text: string): string {
  const read = readTypedDay(text, false);
  return read === null || isRefusal(read) ? text.trim() : dayOf(read.at);
}

/** A day as every place shows it: `6 Nov 2026`; what is none stays as it is. */
function inWords(text: string): string {
  const day = parseDay(text);
  return day ? formatDay(day) : text;
}

/** The day that stands in a form under this name: as it was read, or as it was typed where it is no day. */
export function dayIn(form: FormData, name: string): string {
  return String(form.get(`${name}.day`) ?? '');
}

/**
 * A field for a day: typed in any usual shape, said back at once in the one style of the interface, or picked from a calendar. In a
 * form its `name` holds it as `dayIn` reads it.
 */
export function DayField({
  value,
  defaultValue = '',
  onChange,
  time = false,
  hint,
  problem,
  name,
  ...props
}: DayFieldProps) {
  const [kept, setKept] = useState(() => inWords(defaultValue));
  const text = value ?? kept;
  const read = readTypedDay(text, time);
  const understood = read !== null && !isRefusal(read) ? read : null;
  const day = understood && dayOf(understood.at);
  const set = (next: string) => {
    setKept(next);
    const now = readTypedDay(next, time);
    onChange?.(next, isRefusal(now) ? null : now);
  };
  // Said back unless it stands there already, as every place writes it.
  const said =
    day === null || text.trim() === formatDay(day)
      ? null
      : parseDay(text.trim()) === null
        ? `read as ${formatDay(day)}`
        : formatDay(day);
  return (
    <Line data-bare={props.hideLabel ?? false}>
      <Field
        {...props}
        name={name}
        value={text}
        onChange={set}
        placeholder="21 Sep 2027"
        hint={said ? [hint, said].filter(Boolean).join(' · ') : hint}
        problem={isRefusal(read) ? read.message : (problem ?? null)}
      />
      <DialogTrigger>
        <Open aria-label={`Pick a day for ${props.label}`}>
          <CalendarDays size={16} aria-hidden />
        </Open>
        <Sheet placement="bottom end">
          <Dialog aria-label={props.label}>
            {({ close }) => (
              <Days
                day={day}
                onPick={(picked) => {
                  set(picked);
                  close();
                }}
              />
            )}
          </Dialog>
        </Sheet>
      </DialogTrigger>
      {name && (
        <input
          type="hidden"
          name={`${name}.day`}
          value={understood && day ? (time ? text.trim() : day) : text.trim()}
        />
      )}
    </Line>
  );
}

function Days({ day, onPick }: { day: Day | null; onPick: (day: Day) => void }) {
  return (
    <Calendar
      aria-label="Day"
      autoFocus
      value={day ? parseDate(day) : null}
      onChange={(picked) => onPick(picked.toString() as Day)}
    >
      <header>
        <Open slot="previous" aria-label="Month before">
          <ChevronLeft size={16} aria-hidden />
        </Open>
        <Heading />
        <Open slot="next" aria-label="Month after">
          <ChevronRight size={16} aria-hidden />
        </Open>
      </header>
      <CalendarGrid weekdayStyle="short">{(date) => <Cell date={date} />}</CalendarGrid>
    </Calendar>
  );
}
