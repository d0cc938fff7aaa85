'use client';
import styled from 'styled-components';
import { Link } from '@/ui/controls/Link';
import { Bar } from '@/ui/grid/TotalsBar';
import { restsWords, unknownLines } from '@/ui/text/todayWords';
import { useLedger } from '../frame/LedgerProvider';

const Sum = styled.span`margin-left: auto;`;

/** What nobody has said yet, at the foot of Today: each opens where it is mended for all at once. Gone when all is known. */
export function UnknownBar() {
  const { meta } = useLedger();
  if (meta === null) return null;
  const lines = unknownLines(meta.unknowns);
  if (lines.length === 0) return null;
  return (
    <Bar aria-label="Not known yet">
      <b>Not known yet</b>
      {lines.map(({ about, text }) => (
        <Link key={about} href={`/unknown#${about}`}>
          {text}
        </Link>
      ))}
      <Sum>{restsWords(meta.unknowns)}</Sum>
    </Bar>
  );
}
