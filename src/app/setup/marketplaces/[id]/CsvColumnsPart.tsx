'use client';
import { EditableTable } from '@/ui/controls/EditableTable';
import { Choice, Field } from '@/ui/controls/Field';
import { Section } from '@/ui/text/Sheet';
import type { MarketplaceRow } from '@/usecases/marketplaces/marketplaces';

export type CsvLine = NonNullable<MarketplaceRow['csvColumns']>[number];

interface CsvColumnsPartProps {
  readonly fields: readonly string[];
  readonly lines: readonly CsvLine[];
  readonly onChange: (lines: readonly CsvLine[]) => void;
}

/** The columns of the list that the marketplace takes as CSV, in its own headings. */
export function CsvColumnsPart({ fields, lines, onChange }: CsvColumnsPartProps) {
  return (
    <Section aria-label="Columns of its list (CSV)">
      <h2>Columns of its list (CSV)</h2>
      <p className="soft">The headings that it wants, and what stands under each. Without any, the list has our own.</p>
      <EditableTable
        label="Columns of its list"
        columns={[
          {
            label: 'Heading',
            width: 220,
            cell: ({ heading }, set, place) => (
              <Field
                label={`Column ${place + 1}: heading`}
                hideLabel
                name={`csvColumns.${place}.heading`}
                value={heading}
                onChange={(text) => set({ heading: text })}
              />
            ),
          },
          {
            label: 'Holds',
            width: 200,
            cell: ({ field }, set, place) => (
              <Choice
                label={`Column ${place + 1}: holds`}
                hideLabel
                value={field}
                onChange={(chosen) => set({ field: chosen })}
                options={fields.map((one) => ({ value: one, text: one }))}
              />
            ),
          },
        ]}
        rows={lines}
        blank={{ heading: '', field: fields[0] ?? 'name' }}
        add="Add a column"
        onChange={onChange}
      />
    </Section>
  );
}
