'use client';
import { useState } from 'react';
import { type MarketplaceFees, priceForProceeds } from '@/core/selling';
import { AmountField } from '@/ui/controls/AmountField';
import { Button } from '@/ui/controls/Button';
import { Actions } from '@/ui/overlay/Dialog';
import { formatAmount, typedMinor } from '@/ui/text/figures';

/** The price that is needed for a wanted profit. */
export function Backwards({
  costMinor,
  currency,
  fees,
  unitMinor,
  onUse,
}: {
  costMinor: number | null;
  currency: string;
  fees: MarketplaceFees | null;
  unitMinor: number;
  onUse: (minor: number) => void;
}) {
  const [wanted, setWanted] = useState('');
  const profit = typedMinor(wanted, currency);
  const needed =
    costMinor === null || fees === null || profit === null || Number.isNaN(profit)
      ? null
      : priceForProceeds(costMinor + profit, fees, unitMinor);
  return (
    <Actions>
      <AmountField label="Profit wanted" currency={currency} value={wanted} onChange={setWanted} />
      {needed !== null && (
        <Button onPress={() => onUse(needed)}>needs {formatAmount({ minor: needed, currency }, true)}: use it</Button>
      )}
    </Actions>
  );
}
