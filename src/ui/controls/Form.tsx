'use client';
import { type FormEvent, type ReactNode, useEffect, useRef, useState } from 'react';
import { Form as AriaForm } from 'react-aria-components';
import styled from 'styled-components';
import type { Refusal } from '@/core/refusal';

const Parts = styled.div`
  display: flex;
  flex-direction: column;
  gap: 14px;
  min-width: 0;
`;

interface FormProps {
  /** Why it was not done: what is wrong stands at the field that bears its name, anything else above the buttons. */
  readonly refused: Refusal | null;
  readonly onSubmit: (form: FormData) => void | Promise<void>;
  readonly children: ReactNode;
  readonly 'aria-label'?: string;
}

/** The paths under which a refusal names what is wrong, each with its words. */
function wrongIn(refused: Refusal | null): Readonly<Record<string, string>> {
  if (!refused) return {};
  return refused.fields ?? (refused.field ? { [refused.field]: refused.message } : { '': refused.message });
}

/** What is wrong by the field that shows it, and what no field bears. */
interface Placed {
  readonly placed: Readonly<Record<string, string>>;
  readonly elsewhere: readonly string[];
}

const NOTHING_WRONG: Placed = { placed: {}, elsewhere: [] };

/** Finds the field for each path: the one of that name, else the nearest that holds it (`whois` for `whois.2`). */
function placesOf(wrong: Readonly<Record<string, string>>, fields: HTMLFormControlsCollection): Placed {
  const placed: Record<string, string> = {};
  const elsewhere = new Set<string>();
  for (const [path, words] of Object.entries(wrong)) {
    let name = path;
    while (name !== '' && fields.namedItem(name) === null)
      name = name.includes('.') ? name.slice(0, name.lastIndexOf('.')) : '';
    if (name === '') elsewhere.add(words);
    else placed[name] ??= words;
  }
  return { placed, elsewhere: [...elsewhere] };
}

/** A form. Enter in one of its fields sends it; a refusal arrives at the field it names, which takes the focus. */
export function Form({ refused, onSubmit, children, ...rest }: FormProps) {
  const form = useRef<HTMLFormElement>(null);
  const [{ placed, elsewhere }, setWrong] = useState<Placed>(NOTHING_WRONG);
  useEffect(() => {
    if (!form.current) return;
    const now = placesOf(wrongIn(refused), form.current.elements);
    setWrong(now);
    const [first] = Object.keys(now.placed);
    const field = first === undefined ? null : form.current.elements.namedItem(first);
    if (field instanceof HTMLElement) field.focus();
  }, [refused]);
  const submit = (event: FormEvent<HTMLFormElement>) => {
    event.preventDefault();
    void onSubmit(new FormData(event.currentTarget));
  };
  // What is typed over is wrong no more, at once: a line that vanished only on leaving the field would move the button
  // away from under the pointer that presses it.
  const typedOver = (event: FormEvent<HTMLElement>) => {
    const { name } = event.target as HTMLInputElement;
    if (!(name in placed)) return;
    const { [name]: _, ...still } = placed;
    setWrong({ placed: still, elsewhere });
  };
  return (
    <AriaForm ref={form} validationBehavior="aria" validationErrors={placed} onSubmit={submit} {...rest}>
      <Parts onInput={typedOver}>
        {children}
        {elsewhere.map((words) => (
          <p key={words} className="caution" role="alert">
            {words}
          </p>
        ))}
      </Parts>
    </AriaForm>
  );
}

/** The trimmed text of a field; empty where there is none. */
export function textOf(form: FormData, name: string): string {
  return String(form.get(name) ?? '').trim();
}
