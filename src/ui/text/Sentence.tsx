'use client';
import styled from 'styled-components';

/** A rule as a sentence with blanks: fields stand in it as words do, each as wide as what belongs there. */
export const Sentence = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 6px 7px;
  font-size: 1.07rem;
  line-height: 32px;
  max-width: 92ch;
  & > :is(.react-aria-TextField, div):has(input, button) { flex: none; min-width: 0; line-height: 1.35; }
  & > :has(input) { width: 11ch; }
  & > [data-wide='short']:has(input) { width: 6ch; }
  & > [data-wide='long']:has(input) { width: 24ch; }
  & input { font-weight: 650; padding-block: 2px; min-height: 30px; }
  & button { min-height: 30px; padding-block: 4px; font-weight: 650; line-height: 1.35; }
`;
