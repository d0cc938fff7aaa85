'use client';
import { Plus, X } from 'lucide-react';
import type { ReactNode } from 'react';
import styled from 'styled-components';
import { Ruled } from '../text/Sheet';
import { Button } from './Button';

const Rows = styled(Ruled)`
  width: auto;
  /* What has no field stands at the height of what is written in one. */
  & td { padding-right: 8px; line-height: 32px; }
  & td :is(div, label, p) { line-height: 1.35; }
  & td:last-child { vertical-align: top; }
`;

export interface EditableColumn<T> {
  readonly label: string;
  /** In pixels. */
  readonly width: number;
  /** The control of one cell; `set` changes its row. Its name for screen readers says the row too. */
  readonly cell: (row: T, set: (part: Partial<T>) => void, place: number) => ReactNode;
}

interface EditableTableProps<T> {
  readonly label: string;
  readonly columns: readonly EditableColumn<T>[];
  readonly rows: readonly T[];
  /** A row of which nothing is said yet. */
  readonly blank: T;
  readonly add: string;
  readonly onChange: (rows: readonly T[]) => void;
}

/** A short table that is edited as one: a control in each cell, a row more, a row less. */
export function EditableTable<T>({ label, columns, rows, blank, add, onChange }: EditableTableProps<T>) {
  const set = (place: number) => (part: Partial<T>) =>
    onChange(rows.map((row, i) => (i === place ? { ...row, ...part } : row)));
  return (
    <div>
      {rows.length > 0 && (
        <Rows aria-label={label}>
          <thead>
            <tr>
              {columns.map((column) => (
                <th key={column.label} style={{ width: column.width }}>
                  {column.label}
                </th>
              ))}
              <th>
                <span className="visually-hidden">Remove</span>
              </th>
            </tr>
          </thead>
          <tbody>
            {rows.map((row, place) => (
              // biome-ignore lint/suspicious/noArrayIndexKey: a row is known by its place
              <tr key={place}>
                {columns.map((column) => (
                  <td key={column.label}>{column.cell(row, set(place), place)}</td>
                ))}
                <td>
                  <Button
                    data-kind="plain"
                    aria-label={`Remove row ${place + 1} of ${label}`}
                    onPress={() => onChange(rows.filter((_, i) => i !== place))}
                  >
                    <X size={14} aria-hidden />
                  </Button>
                </td>
              </tr>
            ))}
          </tbody>
        </Rows>
      )}
      <Button data-kind="plain" onPress={() => onChange([...rows, blank])}>
        <Plus size={14} aria-hidden /> {add}
      </Button>
    </div>
  );
}
