'use client';
import { useRouter } from 'next/navigation';
import { useMemo, useState } from 'react';
import styled from 'styled-components';
import { formatDecimal } from '@/core/money';
import type { NamedStrategy } from '@/core/prospects';
import { AmountField } from '@/ui/controls/AmountField';
import { Button } from '@/ui/controls/Button';
import { roughGain, roughly, shareWords, yearsInWords } from '@/ui/text/prospectWords';
import { namesWords } from '@/ui/text/words';
import { DropDialog } from '../../acts/drop/DropDialog';
import { editNamesAction } from '../../acts/edit/actions';
import { useList } from '../../acts/list/useList';
import { useAct } from '../../acts/useAct';
import { useLedger } from '../../frame/LedgerProvider';
import type { RowView } from '../../frame/views';
import { STANDING, type Thought, useProspects } from '../ProspectsContext';
import { useForecast } from '../useForecast';

const Foot = styled.section`
  position: fixed;
  left: 158px;
  right: 0;
  bottom: 0;
  z-index: 5;
  display: flex;
  flex-direction: column;
  gap: 8px;
  padding: 12px 26px 14px;
  background: var(--totals);
  color: var(--on-totals);
  & .soft { color: var(--on-totals-soft); }
  & label { color: var(--on-totals-soft); }
  @media (max-width: 640px) { left: 0; padding-inline: 14px; }
`;

const Line = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: end;
  gap: 8px 14px;
  & input { width: 14ch; }
`;

/** What can be done with the chosen names, and what it changes in the outlook, told before it is done. */
export function ChosenPart({ rows, onClear }: { rows: readonly RowView[]; onClear: () => void }) {
  const { homeCurrency: currency } = useLedger();
  const prospects = useProspects();
  const router = useRouter();
  const list = useList();
  const { act, isBusy } = useAct();
  const [price, setPrice] = useState<number | null>(null);
  const [isDropping, setDropping] = useState(false);
  const ids = useMemo(() => rows.map(({ name }) => name.id), [rows]);
  const thought: Thought = useMemo(
    () =>
      price === null
        ? { dropped: ids, asked: [] }
        : { dropped: [], asked: ids.map((nameId) => ({ nameId, minor: price })) },
    [ids, price],
  );
  const look = () => {
    prospects.think(thought);
    router.push('/prospects');
  };
  const setAsking = async () => {
    if (price === null) return;
    const asking = { amount: formatDecimal({ minor: price, currency }), currency };
    if (await act(() => editNamesAction({ nameIds: ids, edit: { asking } }))) onClear();
  };
  return (
    <Foot aria-label="Chosen names">
      <Effect thought={thought} count={rows.length} />
      <Line>
        <b style={{ alignSelf: 'center' }}>{namesWords(rows.length)} chosen</b>
        <Button onPress={() => setDropping(true)}>Drop…</Button>
        <AmountField
          label={`Ask another price, ${currency}`}
          currency={currency}
          onChange={(_, read) => setPrice(read && read.minor > 0 ? read.minor : null)}
        />
        <Button isDisabled={price === null || isBusy} onPress={() => void setAsking()}>
          Set the price
        </Button>
        <Button onPress={() => list(ids)}>List for sale…</Button>
        <Button onPress={look}>See it in the fan</Button>
        <Button onPress={onClear}>Clear</Button>
      </Line>
      <DropDialog isOpen={isDropping} onClose={() => setDropping(false)} rows={rows} />
    </Foot>
  );
}

/** What a thought changes, against how it stands, on the same random numbers. */
function Effect({ thought, count }: { thought: Thought; count: number }) {
  const prospects = useProspects();
  const { homeCurrency: currency } = useLedger();
  const strategies = useMemo<NamedStrategy[]>(
    () => [STANDING, { label: 'what you think of', strategy: { kind: 'thought', ...thought } }],
    [thought],
  );
  const { forecast } = useForecast(prospects, strategies);
  const [standing, then] = forecast?.fans ?? [];
  const [compared] = forecast?.compared ?? [];
  const years = yearsInWords(prospects.years);
  const what =
    thought.dropped.length > 0
      ? `Dropping ${count === 1 ? 'it' : 'them'}`
      : `That price for ${count === 1 ? 'it' : 'them'}`;
  if (!forecast) return <p className="soft">Looking what it changes…</p>;
  if (!standing || !then || !compared)
    return (
      <p className="soft">
        What it changes cannot be told: the outlook lacks a price or a balance. See there what stands in for it.
      </p>
    );
  const money = (minor: number) => roughly(Math.abs(minor), currency);
  const error = 2 * compared.standardError;
  return (
    <p role="status">
      {what} leaves <b>{roughGain(compared.difference, currency)}</b> in {years} against how it stands
      {error > 0 && ` (sure to ± ${money(error)})`}, and more on {shareWords(compared.better)} of paths. Money runs out
      on {shareWords(then.short.at(-1) ?? 0)} instead of {shareWords(standing.short.at(-1) ?? 0)};{' '}
      {then.namesSold.toFixed(1)} names sold instead of {standing.namesSold.toFixed(1)}.
    </p>
  );
}
