'use client';
import styled from 'styled-components';
import { sumByCurrency } from '@/core/money';
import { Button } from '@/ui/controls/Button';
import { Acts, Bar } from '@/ui/grid/TotalsBar';
import { amountsWords, namesWords } from '@/ui/text/words';
import { useRenew } from '../acts/renew/useRenew';
import type { RescueRow, RowView } from '../frame/views';

/** At the foot of the window, wherever it stands on the page: after the budget, so that it is next for who goes by keyboard. */
const Foot = styled(Bar)`
  position: fixed;
  left: 158px;
  right: 0;
  @media (max-width: 640px) { left: 0; }
`;

/** What can be done with the chosen names, and for how much: over the whole width, at the foot of the page. */
export function ChosenFoot({
  picked,
  onDrop,
  onClear,
}: {
  picked: readonly RescueRow[];
  onDrop: (rows: readonly RowView[]) => void;
  onClear: () => void;
}) {
  const renew = useRenew();
  const toRestore = picked.filter(({ row }) => row.phase === 'redemption');
  const toRenew = picked.filter(({ row }) => row.phase !== 'redemption' && row.phase !== 'pending restore');
  const costs = (list: readonly RescueRow[]) =>
    amountsWords(sumByCurrency(list.flatMap(({ judgement }) => judgement.cost ?? [])));
  const items = (list: readonly RescueRow[]) =>
    list.map(({ row }) => ({ nameId: row.name.id, years: row.policy.terms.renew.least }));
  return (
    <Foot aria-label="Chosen names">
      <b>{namesWords(picked.length)} chosen</b>
      <span>
        in all <b>{costs(picked)}</b>
      </span>
      <Acts>
        {toRenew.length > 0 && (
          <Button onPress={() => void renew(items(toRenew))}>
            Renew {namesWords(toRenew.length)} for {costs(toRenew)}…
          </Button>
        )}
        {toRestore.length > 0 && (
          <Button onPress={() => void renew(items(toRestore), 'restore')}>
            Restore {namesWords(toRestore.length)} for {costs(toRestore)}…
          </Button>
        )}
        <Button onPress={() => onDrop(picked.map(({ row }) => row))}>Drop…</Button>
        <Button onPress={onClear}>Clear</Button>
      </Acts>
    </Foot>
  );
}
