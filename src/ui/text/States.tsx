'use client';
import type { ReactNode } from 'react';
import styled from 'styled-components';
import { Button } from '../controls/Button';

const Middle = styled.div`
  display: flex;
  flex-direction: column;
  align-items: flex-start;
  gap: 10px;
  padding: 48px 32px;
  flex: 1;
`;

/** A list with nothing in it: what that means, and what to do. */
export function Empty({ title, text, children }: { title: string; text: string; children?: ReactNode }) {
  return (
    <Middle>
      <strong>{title}</strong>
      <p className="soft">{text}</p>
      {children}
    </Middle>
  );
}

/** Something is on its way. */
export function Loading({ text }: { text: string }) {
  return (
    <Middle role="status">
      <span className="soft">{text}…</span>
    </Middle>
  );
}

/** Something could not be had: why, and how to go on. */
export function Failed({ text, onRetry }: { text: string; onRetry: () => void }) {
  return (
    <Middle role="alert">
      <strong>{text}</strong>
      <Button onPress={onRetry}>Try again</Button>
    </Middle>
  );
}

const Work = styled.div`
  display: flex;
  flex-direction: column;
  gap: 6px;
  & progress { width: 100%; height: 14px; appearance: none; border: 1px solid var(--land-edge); background: var(--sheet); }
  & progress::-webkit-progress-bar { background: var(--sheet); }
  & progress::-webkit-progress-value { background: var(--land); border-right: 1px solid var(--land-edge); }
  & progress::-moz-progress-bar { background: var(--land); }
`;

/** A count of work done out of what there is, as a bar like a paid term, and in words. */
export function Progress({
  done,
  total,
  text,
  children,
}: {
  done: number;
  total: number;
  text: string;
  children?: ReactNode;
}) {
  const share = total === 0 ? 0 : Math.round((100 * done) / total);
  return (
    <Work role="status">
      <span>
        <b>{text}</b>: {done.toLocaleString('en')} of {total.toLocaleString('en')}
      </span>
      <progress value={share} max={100} aria-label={text} />
      {children}
    </Work>
  );
}
