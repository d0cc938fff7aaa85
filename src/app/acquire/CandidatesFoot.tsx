'use client';
import styled from 'styled-components';
import type { CandidateTotals } from '@/core/acquiring';

const Bar = styled.footer`
  display: flex;
  align-items: center;
  gap: 0 20px;
  flex-wrap: wrap;
  flex: none;
  min-height: 44px;
  padding: 4px 26px;
  background: var(--totals);
  color: var(--on-totals);
  & > span { color: var(--on-totals-soft); white-space: nowrap; }
  & b { color: var(--on-totals); }
`;

/** What the candidates in view come to. */
export function CandidatesFoot({ totals }: { totals: CandidateTotals }) {
  const count = (figure: number) => <b>{figure.toLocaleString('en')}</b>;
  return (
    <Bar aria-label="Totals of the candidates">
      <b>{totals.candidates === 1 ? 'one candidate' : `${totals.candidates.toLocaleString('en')} candidates`}</b>
      <span>names {count(totals.names)}</span>
      <span>to be had {count(totals.toBeHad)}</span>
      <span>taken {count(totals.taken)}</span>
      <span>not known {count(totals.notKnown)}</span>
    </Bar>
  );
}
