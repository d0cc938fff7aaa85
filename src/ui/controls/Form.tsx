'use client';
import { type FormEvent, type ReactNode, useEffect, useMemo, useRef, useState } from 'react';
import { Form as AriaForm } from 'react-aria-components';
import styled from 'styled-components';
import type { Refusal } from '@/core/refusal';

const Sheet = styled(AriaForm)`
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

/** A form. Enter in one of its fields sends it; a refusal arrives at the field it names, which takes the focus. */
export function Form({ refused, onSubmit, children, ...rest }: FormProps) {
  const form = useRef<HTMLFormElement>(null);
  const wrong = useMemo(() => wrongIn(refused), [refused]);
  const [elsewhere, setElsewhere] = useState<readonly string[]>([]);
  useEffect(() => {
    const fields = form.current?.elements;
    const bears = (path: string) => path !== '' && fields?.namedItem(path) != null;
    setElsewhere([...new Set(Object.entries(wrong).flatMap(([path, words]) => (bears(path) ? [] : [words])))]);
    const [first] = Object.keys(wrong).filter(bears);
    const field = first === undefined ? null : fields?.namedItem(first);
    if (field instanceof HTMLElement) field.focus();
  }, [wrong]);
  const submit = (event: FormEvent<HTMLFormElement>) => {
    event.preventDefault();
    void onSubmit(new FormData(event.currentTarget));
  };
  return (
    <Sheet ref={form} validationBehavior="aria" validationErrors={wrong} onSubmit={submit} {...rest}>
      {children}
      {elsewhere.map((words) => (
        <p key={words} className="caution" role="alert">
          {words}
        </p>
      ))}
    </Sheet>
  );
}

/** The trimmed text of a field; empty where there is none. */
export function textOf(form: FormData, name: string): string {
  return String(form.get(name) ?? '').trim();
}
