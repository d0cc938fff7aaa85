'use client';
import { useState } from 'react';
import {
  type ColumnReading,
  DATE_FIELDS,
  openQuestions,
  PORTFOLIO_FIELDS,
  type PortfolioField,
} from '@/formats/portfolio/columns';
import { Button } from '@/ui/controls/Button';
import { Check } from '@/ui/controls/Check';
import { Choice } from '@/ui/controls/Field';
import { Actions } from '@/ui/overlay/Dialog';
import { Fields, Ruled, Section } from '@/ui/text/Sheet';
import { Wide } from '@/ui/text/Wide';
import type { ImportOptions } from '@/usecases/imports/readImport';

export const FIELD_WORDS: Readonly<Record<PortfolioField, string>> = {
  name: 'name',
  account: 'account or registrar',
  registered: 'registered',
  expires: 'term ends (expires)',
  autoRenew: 'auto-renew',
  lock: 'lock',
  privacy: 'privacy',
  nameServers: 'name servers',
  tags: 'tags',
  purpose: 'purpose',
  neverLost: 'never to be lost',
  pricePaid: 'price paid',
  boughtOn: 'date bought',
  renewalPrice: 'renewal price',
  currency: 'currency',
  askingPrice: 'asking price',
  notes: 'notes',
};

interface MappingTableProps {
  readonly options: ImportOptions;
  readonly sample: readonly (readonly string[])[];
  readonly accounts: readonly { readonly id: number; readonly label: string }[];
  readonly privateEndings: boolean;
  readonly onChange: (options: ImportOptions) => void;
}

const LEFT_OUT = 'left out';

/** How each column is read, with what stands in it, to be corrected. Open date columns are asked about here. */
export function MappingTable({ options, sample, accounts, privateEndings, onChange }: MappingTableProps) {
  const { columns } = options.mapping;
  const open = openQuestions(options.mapping);
  const [wanted, setWanted] = useState(false);
  const shown = wanted || open.length > 0;
  const setColumn = (place: number, change: Partial<ColumnReading>) => {
    const next = columns.map((column, i) => {
      if (i === place) return { ...column, ...change };
      return change.field && column.field === change.field ? { ...column, field: null } : column;
    });
    onChange({ ...options, mapping: { ...options.mapping, columns: next } });
  };
  return (
    <Section aria-label="How the list is read">
      <Actions>
        <h2>How it is read</h2>
        <Button data-kind="plain" aria-expanded={shown} onPress={() => setWanted(!shown)}>
          {shown ? 'Hide' : 'Show and correct'}
        </Button>
      </Actions>
      {!shown && (
        <p className="soft">
          {columns
            .flatMap((column) =>
              column.field
                ? [column.heading ? `${column.heading}: ${FIELD_WORDS[column.field]}` : FIELD_WORDS[column.field]]
                : [],
            )
            .join(' · ')}
        </p>
      )}
      {shown && (
        <Wide>
          <Ruled>
            <thead>
              <tr>
                <th>Column</th>
                <th>Read as</th>
                <th>Dates</th>
                <th>First rows</th>
              </tr>
            </thead>
            <tbody>
              {columns.map((column, i) => (
                // biome-ignore lint/suspicious/noArrayIndexKey: a column is known by its place in the file
                <tr key={i}>
                  <td>{column.heading || `column ${i + 1}`}</td>
                  <td>
                    <Choice
                      hideLabel
                      label={`Read ${column.heading || `column ${i + 1}`} as`}
                      value={column.field ?? LEFT_OUT}
                      onChange={(field) =>
                        setColumn(i, { field: field === LEFT_OUT ? null : (field as PortfolioField) })
                      }
                      options={[
                        { value: LEFT_OUT, text: 'left out' },
                        ...PORTFOLIO_FIELDS.map((field) => ({
                          value: field as string,
                          text: FIELD_WORDS[field],
                        })),
                      ]}
                    />
                  </td>
                  <td>{dateCell(column, (order) => setColumn(i, { order }))}</td>
                  <td className="soft">
                    {sample
                      .map((cells) => cells[i] ?? '')
                      .filter(Boolean)
                      .join(' · ')
                      .slice(0, 80)}
                  </td>
                </tr>
              ))}
            </tbody>
          </Ruled>
        </Wide>
      )}
      <Fields>
        <Choice
          label="Account of names that say none"
          value={String(options.accountId ?? LEFT_OUT)}
          onChange={(id) => onChange({ ...options, accountId: Number(id) || null })}
          options={[
            { value: LEFT_OUT, text: 'not said' },
            ...accounts.map((account) => ({ value: String(account.id), text: account.label })),
          ]}
        />
        {options.accountId !== null && (
          <Check isSelected={options.fullList} onChange={(fullList) => onChange({ ...options, fullList })}>
            This is every name of that account
          </Check>
        )}
        {(privateEndings || options.allowPrivateEndings) && (
          <Check
            isSelected={options.allowPrivateEndings}
            onChange={(allowPrivateEndings) => onChange({ ...options, allowPrivateEndings })}
          >
            Allow private endings
          </Check>
        )}
      </Fields>
    </Section>
  );
}

function dateCell(column: ColumnReading, onOrder: (order: 'day first' | 'month first') => void) {
  if (column.field === null || !DATE_FIELDS.includes(column.field)) return null;
  if (column.foundOrder === 'not needed') return <span className="soft">plain</span>;
  if (column.order === null && (column.foundOrder === 'day first' || column.foundOrder === 'month first'))
    return <span>{column.foundOrder}</span>;
  return (
    <Choice
      hideLabel
      label={`Day or month first in ${column.heading}`}
      placeholder="day or month first?"
      value={column.order}
      onChange={onOrder}
      options={[
        { value: 'day first', text: 'day first: 5/6 is 5 Jun' },
        { value: 'month first', text: 'month first: 5/6 is 6 May' },
      ]}
    />
  );
}
