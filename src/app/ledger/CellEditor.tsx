'use client';
import { type KeyboardEvent, useEffect, useRef, useState } from 'react';
import styled from 'styled-components';
import { formatDecimal } from '@/core/money';
import { reportDone } from '../answers';
import { useLedger } from '../frame/LedgerProvider';
import type { RowView } from '../frame/views';
import { editNamesAction } from './actions';
import type { ColumnId } from './ledgerColumns';

const EDITABLE = ['asking', 'tags', 'notes', 'account'] as const;
type Editable = (typeof EDITABLE)[number];

/** True for columns whose cells are edited where they stand. */
export function isEditable(id: ColumnId): id is Editable {
  return (EDITABLE as readonly string[]).includes(id);
}

const Line = styled.input`
  width: 100%;
  height: 26px;
  border: 1px solid var(--bearing);
  border-radius: 2px;
  background: var(--sheet);
  padding: 0 4px;
`;

function textOf(row: RowView, column: ColumnId): string {
  switch (column) {
    case 'asking':
      return row.name.asking ? formatDecimal(row.name.asking).replace(/\.00$/, '') : '';
    case 'tags':
      return row.name.tags.join(', ');
    case 'notes':
      return row.name.notes;
    default:
      return String(row.name.accountId);
  }
}

/** What the new text of a cell asks the ledger to change. */
function editOf(row: RowView, column: ColumnId, text: string, homeCurrency: string): Record<string, unknown> {
  const written = text.trim();
  switch (column) {
    case 'asking':
      return written === ''
        ? { clearAsking: true }
        : {
            asking: {
              amount: written.replaceAll(',', ''),
              currency: row.name.asking?.currency ?? homeCurrency,
            },
          };
    case 'tags': {
      const tags = written
        .split(',')
        .map((tag) => tag.trim())
        .filter((tag) => tag !== '');
      return { addTags: tags, removeTags: row.name.tags.filter((tag) => !tags.includes(tag)) };
    }
    case 'notes':
      return written === '' ? { clearNotes: true } : { notes: written };
    default:
      return { accountId: Number(written) };
  }
}

/** A cell while it is edited: Enter keeps, Escape leaves it as it was. */
export function CellEditor({
  row,
  column,
  onEnd,
  onUndo,
}: {
  row: RowView;
  column: ColumnId;
  onEnd: () => void;
  onUndo: (batchId: number) => Promise<void>;
}) {
  const { homeCurrency, meta, reload } = useLedger();
  const [text, setText] = useState(() => textOf(row, column));
  const field = useRef<HTMLInputElement & HTMLSelectElement>(null);
  const ended = useRef(false);

  useEffect(() => {
    field.current?.focus();
    if (column !== 'account') field.current?.select();
  }, [column]);

  const end = async (keep: boolean, value = text) => {
    if (ended.current) return;
    ended.current = true;
    const grid = field.current?.closest<HTMLElement>('[role=grid]');
    onEnd();
    grid?.focus();
    if (!keep || value === textOf(row, column)) return;
    const answer = await editNamesAction({
      nameIds: [row.name.id],
      edit: editOf(row, column, value, homeCurrency),
    });
    if (reportDone(answer, (batchId) => void onUndo(batchId))) await reload();
  };
  const onKeyDown = (event: KeyboardEvent) => {
    event.stopPropagation();
    if (event.key === 'Enter') void end(true);
    if (event.key === 'Escape') void end(false);
  };
  const label = `${column} of ${row.name.unicode}`;
  if (column === 'account') {
    return (
      <Line
        as="select"
        ref={field}
        aria-label={label}
        value={text}
        onChange={(event) => void end(true, event.target.value)}
        onKeyDown={onKeyDown}
        onBlur={() => void end(false)}
      >
        {meta?.rules.accounts.map((account) => (
          <option key={account.id} value={account.id}>
            {account.label}
          </option>
        ))}
      </Line>
    );
  }
  return (
    <Line
      ref={field}
      aria-label={label}
      value={text}
      onChange={(event) => setText(event.target.value)}
      onKeyDown={onKeyDown}
      onBlur={() => void end(true)}
    />
  );
}
