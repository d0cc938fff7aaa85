'use client';
import styled from 'styled-components';

/** What stands under a table: the totals of what is in view, or of what is chosen. */
export const Bar = styled.footer`
  display: flex;
  align-items: center;
  gap: 0 20px;
  flex-wrap: wrap;
  flex: none;
  position: sticky;
  bottom: 0;
  z-index: 3;
  min-height: 44px;
  padding: 4px 18px;
  background: var(--totals);
  color: var(--on-totals);
  & > span, & b > span { color: var(--on-totals-soft); white-space: nowrap; }
  & b > span { color: inherit; }
  & b { color: var(--on-totals); }
  & > a { color: var(--on-totals); text-decoration: underline; text-underline-offset: 3px; white-space: nowrap; }
  &[aria-busy='true'] > :is(b, span) { opacity: 0.45; }
  @media (max-width: 640px) { gap: 0 12px; & > span { white-space: normal; } }
  /* In a low window the rows come first: one line that is moved sideways. */
  @media (max-height: 520px) { flex-wrap: nowrap; min-height: 32px; padding-block: 0; overflow-x: auto; & > * { flex: none; white-space: nowrap; } }
  @media print { background: none; color: black; border-top: 2px solid black; }
`;

/** What can be done with it. */
export const Acts = styled.div`
  display: flex;
  gap: 8px;
  margin-left: auto;
  & > * { min-height: 28px; padding-block: 2px; border-color: transparent; }
  @media print { display: none; }
`;
