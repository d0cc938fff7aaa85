'use client';
import styled from 'styled-components';
import { Button } from '@/ui/controls/Button';
import type { LedgerChoice } from '@/usecases/ledgers/choice';
import { useOpenLedger } from '../acts/ledgers/useOpenLedger';

const Box = styled.div`
  padding: 10px 16px;
  border-top: 1px solid var(--rule);
  background: repeating-linear-gradient(135deg, transparent 0 6px, var(--shoal-pale) 6px 8px);
  & > button { padding: 0; }
`;

/** Says that what is seen is the demo, and leads out of it. */
export function DemoMark({ choice }: { choice: LedgerChoice }) {
  const { doing, open } = useOpenLedger();
  if (choice.open !== 'demo') return null;
  return (
    <Box>
      <strong>The demo ledger</strong>
      <Button data-kind="plain" isDisabled={doing !== null} onPress={() => void open('own')}>
        {doing ? `${doing}…` : 'Leave it'}
      </Button>
    </Box>
  );
}
