'use client';
import { useState } from 'react';
import type { NumberStyle } from '@/core/money';
import { DATE_ORDERS, type DateOrder } from '@/core/time';
import {
  areAmountsOpen,
  type ColumnReading,
  DATE_FIELDS,
  openQuestions,
  PORTFOLIO_FIELDS,
  type PortfolioField,
} from '@/formats/portfolio/columns';
import { Button } from '@/ui/controls/Button';
import { Check } from '@/ui/controls/Check';
import { Choice, Field } from '@/ui/controls/Field';
import { Actions } from '@/ui/overlay/Dialog';
import { numberStyle } from '@/ui/text/figures';
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
  readonly isOpen: boolean;
  readonly onOpen: (isOpen: boolean) => void;
  readonly accounts: readonly { readonly id: number; readonly label: string }[];
  readonly privateEndings: boolean;
  readonly onChange: (options: ImportOptions) => void;
}

const LEFT_OUT = 'left out';
const NEW = 'new';

/** How each column is read, with what stands in it, to be corrected. Open date columns are asked about here. */
export function MappingTable({ options, isOpen, onOpen, accounts, privateEndings, onChange }: MappingTableProps) {
  const { columns } = options.mapping;
  const shown = isOpen || openQuestions(options.mapping, numberStyle()).length > 0;
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
        <Button data-kind="plain" aria-expanded={shown} onPress={() => onOpen(!shown)}>
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
      {shown && <ColumnsTable columns={columns} sample={options.sample ?? []} onColumn={setColumn} />}
      <ListFields options={options} accounts={accounts} privateEndings={privateEndings} onChange={onChange} />
    </Section>
  );
}

interface ColumnsTableProps {
  readonly columns: readonly ColumnReading[];
  /** The first rows of the list. */
  readonly sample: readonly (readonly string[])[];
  readonly onColumn: (place: number, change: Partial<ColumnReading>) => void;
}

/** What each column is read as, how its days and amounts are written, and what stands in it. */
function ColumnsTable({ columns, sample, onColumn }: ColumnsTableProps) {
  return (
    <Wide>
      <Ruled>
        <thead>
          <tr>
            <th>Column</th>
            <th>Read as</th>
            <th>How it is written</th>
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
                  onChange={(field) => onColumn(i, { field: field === LEFT_OUT ? null : (field as PortfolioField) })}
                  options={[
                    { value: LEFT_OUT, text: 'left out' },
                    ...PORTFOLIO_FIELDS.map((field) => ({
                      value: field as string,
                      text: FIELD_WORDS[field],
                    })),
                  ]}
                />
              </td>
              <td>
                {dateCell(column, (order) => onColumn(i, { order }))}
                {amountCell(column, (numbers) => onColumn(i, { numbers }))}
              </td>
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
  );
}

/** What is said of the list as a whole: its account, its sheet, whether it is complete. */
function ListFields({ options, accounts, privateEndings, onChange }: Omit<MappingTableProps, 'isOpen' | 'onOpen'>) {
  const sheets = options.sheets ?? [];
  const [label, setLabel] = useState(options.accountLabel ?? '');
  const [isNew, setNew] = useState(options.accountLabel != null);
  return (
    <Fields>
      <Choice
        label="Account, where the list names none"
        value={isNew ? NEW : String(options.accountId ?? LEFT_OUT)}
        onChange={(id) => {
          setNew(id === NEW);
          if (id !== NEW) onChange({ ...options, accountId: Number(id) || null, accountLabel: null });
        }}
        options={[
          { value: LEFT_OUT, text: 'not said' },
          ...accounts.map((account) => ({ value: String(account.id), text: account.label })),
          { value: NEW, text: 'A new account…' },
        ]}
      />
      {isNew && (
        <Field
          label="Label of the new account"
          value={label}
          onChange={setLabel}
          hint="made when the list is written"
          onBlur={() => onChange({ ...options, accountId: null, accountLabel: label.trim() || null })}
        />
      )}
      {sheets.length > 1 && (
        <Choice
          label="Sheet"
          value={options.sheet ?? sheets[0]?.name ?? ''}
          onChange={(sheet) => onChange({ ...options, sheet })}
          options={sheets.map(({ name, rows }) => ({ value: name, text: `${name}, ${rows} rows` }))}
        />
      )}
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
  );
}

function dateCell(column: ColumnReading, onOrder: (order: DateOrder) => void) {
  if (column.field === null || !DATE_FIELDS.includes(column.field)) return null;
  if (column.foundOrder === 'not needed') return <span className="soft">plain</span>;
  if (column.order === null && (DATE_ORDERS as readonly string[]).includes(column.foundOrder))
    return <span>{column.foundOrder}</span>;
  return (
    <Choice
      hideLabel
      label={`What stands first in ${column.heading}`}
      placeholder="what stands first?"
      value={column.order}
      onChange={onOrder}
      options={[
        { value: 'day first', text: 'day first: 5/6 is 5 Jun' },
        { value: 'month first', text: 'month first: 5/6 is 6 May' },
        { value: 'year first', text: 'year first: 27/5/6 is 6 May 2027' },
      ]}
    />
  );
}

function amountCell(column: ColumnReading, onNumbers: (style: NumberStyle) => void) {
  if (!areAmountsOpen(column, numberStyle())) return null;
  return (
    <Choice
      hideLabel
      label={`What 1.200 means in ${column.heading}`}
      placeholder="what does 1.200 mean?"
      value={column.numbers ?? null}
      onChange={onNumbers}
      options={[
        { value: '1,234.50', text: 'one and a fifth: the point stands before cents' },
        { value: '1.234,50', text: 'twelve hundred: the comma stands before cents' },
      ]}
    />
  );
}
