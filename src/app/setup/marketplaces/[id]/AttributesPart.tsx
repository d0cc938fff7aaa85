'use client';
import { AmountField } from '@/ui/controls/AmountField';
import { EditableTable } from '@/ui/controls/EditableTable';
import { Field } from '@/ui/controls/Field';
import { Section } from '@/ui/text/Sheet';

/** One option of an attribute, as it is typed. Lines of the same attribute are its options. */
export interface OptionLine {
  readonly attribute: string;
  readonly option: string;
  readonly minor: number | null;
}

interface AttributesPartProps {
  readonly currency: string;
  readonly lines: readonly OptionLine[];
  readonly onChange: (lines: readonly OptionLine[]) => void;
}

/** What the marketplace asks beside the prices, with what may be chosen and what that costs. */
export function AttributesPart({ currency, lines, onChange }: AttributesPartProps) {
  return (
    <Section aria-label="Attributes of a listing">
      <h2>Attributes of a listing</h2>
      <p className="soft">
        What the marketplace asks beside the prices: a line for each option. An attribute with “yes” alone is ticked or
        not.
      </p>
      <EditableTable
        label="Attributes of a listing"
        columns={[
          {
            label: 'Attribute',
            width: 260,
            cell: ({ attribute }, set, place) => (
              <Field
                label={`Line ${place + 1}: attribute`}
                hideLabel
                value={attribute}
                onChange={(text) => set({ attribute: text })}
                placeholder="Paid placement"
              />
            ),
          },
          {
            label: 'Option',
            width: 220,
            cell: ({ option }, set, place) => (
              <Field
                label={`Line ${place + 1}: option`}
                hideLabel
                value={option}
                onChange={(text) => set({ option: text })}
                placeholder="first page for a week"
              />
            ),
          },
          {
            label: 'Costs',
            width: 130,
            cell: ({ minor }, set, place) => (
              <AmountField
                label={`Line ${place + 1}: costs`}
                hideLabel
                currency={currency}
                amount={minor === null ? null : { minor, currency }}
                onChange={(_, read) => set({ minor: read?.minor ?? null })}
              />
            ),
          },
        ]}
        rows={lines}
        blank={{ attribute: '', option: 'yes', minor: null }}
        add="Add an option"
        onChange={onChange}
      />
    </Section>
  );
}

/** The attributes that the lines describe, in the order in which each comes first. */
export function attributesOf(lines: readonly OptionLine[]) {
  const labels = [...new Set(lines.map(({ attribute }) => attribute.trim()).filter(Boolean))];
  return labels.map((label) => ({
    label,
    options: lines
      .filter(({ attribute }) => attribute.trim() === label)
      .map(({ option, minor }) => ({ label: option.trim(), minor: minor ?? 0 })),
  }));
}
