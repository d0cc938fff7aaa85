'use client';
import { readPercent } from '@/core/money';
import { isRefusal } from '@/core/refusal';
import { AmountField } from '@/ui/controls/AmountField';
import { EditableTable } from '@/ui/controls/EditableTable';
import { Field } from '@/ui/controls/Field';
import { Fields, Section } from '@/ui/text/Sheet';
import type { MarketplaceRow } from '@/usecases/marketplaces/marketplaces';

/** A part of the price with a commission of its own, as it is typed. */
export interface StepLine {
  readonly fromMinor: number | null;
  readonly percent: string;
}

/** `NaN` for what is no percentage: it is refused at its field. */
export function percentOf(text: string): number {
  const percent = readPercent(text);
  return isRefusal(percent) ? Number.NaN : percent;
}

interface FeesPartProps {
  readonly marketplace: MarketplaceRow | null;
  readonly currency: string;
  readonly steps: readonly StepLine[];
  readonly onCurrency: (code: string) => void;
  readonly onSteps: (steps: readonly StepLine[]) => void;
}

/** What the marketplace keeps of a sale, and what listing there costs. */
export function FeesPart({ marketplace, currency, steps, onCurrency, onSteps }: FeesPartProps) {
  const amount = (
    label: string,
    key: 'floorMinor' | 'saleFeeMinor' | 'listingFeeMinor' | 'membershipMinor' | 'categoryMinor',
  ) => (
    <AmountField
      label={label}
      name={key}
      currency={currency}
      amount={marketplace?.[key] ? { minor: marketplace[key], currency: marketplace.feesCurrency } : null}
    />
  );
  return (
    <Section aria-label="Fees">
      <h2>Fees</h2>
      <Fields>
        <Field
          label="Currency of its fees"
          name="feesCurrency"
          value={currency}
          onChange={(code) => onCurrency(code.trim().toUpperCase())}
        />
        <Field label="Commission, percent" name="percent" defaultValue={String(marketplace?.percent ?? '')} />
        {amount('Commission at least', 'floorMinor')}
        {amount('Fee for a sale', 'saleFeeMinor')}
        {amount('Fee for a listing', 'listingFeeMinor')}
        {amount('Each further category', 'categoryMinor')}
        {amount('Membership a year', 'membershipMinor')}
      </Fields>
      <h3>Commission by parts of the price</h3>
      <EditableTable
        label="Commission by parts of the price"
        columns={[
          {
            label: 'Above',
            width: 150,
            cell: ({ fromMinor }, set, place) => (
              <AmountField
                label={`Part ${place + 1}: above`}
                hideLabel
                name={`steps.${place}.fromMinor`}
                currency={currency}
                amount={fromMinor === null ? null : { minor: fromMinor, currency }}
                onChange={(_, read) => set({ fromMinor: read?.minor ?? null })}
              />
            ),
          },
          {
            label: 'Percent',
            width: 100,
            cell: ({ percent }, set, place) => (
              <Field
                label={`Part ${place + 1}: percent`}
                hideLabel
                name={`steps.${place}.percent`}
                value={percent}
                onChange={(text) => set({ percent: text })}
                inputMode="decimal"
              />
            ),
          },
        ]}
        rows={steps}
        blank={{ fromMinor: null, percent: '' }}
        add="Add a part of the price"
        onChange={onSteps}
      />
    </Section>
  );
}
