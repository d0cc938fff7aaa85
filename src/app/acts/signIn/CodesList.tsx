'use client';
import styled from 'styled-components';
import { Button } from '@/ui/controls/Button';
import { Actions } from '@/ui/overlay/Dialog';

const Codes = styled.ol`
  columns: 2;
  padding-left: 24px;
  font-family: var(--font-names);
  & li { padding: 2px 0; }
  @media (max-width: 400px) { columns: 1; }
`;

/** Recovery codes, to be copied or printed; they are told once. */
export function CodesList({ codes }: { codes: readonly string[] }) {
  return (
    <>
      <Codes aria-label="Recovery codes">
        {codes.map((code) => (
          <li key={code}>{code}</li>
        ))}
      </Codes>
      <Actions>
        <Button onPress={() => void navigator.clipboard.writeText(codes.join('\n'))}>Copy them</Button>
        <Button onPress={() => window.print()}>Print them</Button>
      </Actions>
    </>
  );
}
