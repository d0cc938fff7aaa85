'use client';
import { type KeyboardEvent, type RefObject, useEffect, useRef, useState } from 'react';
import { Popover } from 'react-aria-components';
import styled from 'styled-components';
import { type Amount, formatDecimal } from '@/core/money';
import { isRefusal, type Refusal } from '@/core/refusal';
import { readPhrases } from '@/formats/lists/readWords';
import { readTyped, spellAmount, typedAmount } from '@/ui/text/figures';
import { editNamesAction } from '../acts/edit/actions';
import { useAct } from '../acts/useAct';
import { useLedger } from '../frame/LedgerProvider';
import type { RowView } from '../frame/views';
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

const Understood = styled(Popover)`
  max-width: 320px;
  padding: 3px 8px;
  border: 1px solid var(--rule);
  border-radius: 2px;
  background: var(--sheet);
`;

function textOf(row: RowView, column: ColumnId): string {
  switch (column) {
    case 'asking':
      return row.name.asking ? typedAmount(row.name.asking) : '';
    case 'tags':
      return row.name.tags.join(', ');
    case 'notes':
      return row.name.notes;
    default:
      return String(row.name.accountId);
  }
}

/** The asking price that was typed; `null` for none. */
function readAsking(row: RowView, text: string, homeCurrency: string): Amount | Refusal | null {
  return text.trim() === '' ? null : readTyped(text, row.name.asking?.currency ?? homeCurrency);
}

/** What the new text of a cell asks the ledger to change. */
function editOf(row: RowView, column: ColumnId, text: string, homeCurrency: string): Record<string, unknown> {
  const written = text.trim();
  switch (column) {
    case 'asking': {
      const read = readAsking(row, written, homeCurrency);
      return read === null || isRefusal(read)
        ? { clearAsking: true }
        : { asking: { amount: formatDecimal(read), currency: read.currency } };
    }
    case 'tags': {
      const tags = readPhrases(written);
      return { addTags: tags, removeTags: row.name.tags.filter((tag) => !tags.includes(tag)) };
    }
    case 'notes':
      return written === '' ? { clearNotes: true } : { notes: written };
    default:
      return { accountId: Number(written) };
  }
}

/** A cell while it is edited: Enter keeps, Escape leaves it as it was. */
export function CellEditor({ row, column, onEnd }: { row: RowView; column: ColumnId; onEnd: () => void }) {
  const { homeCurrency, meta } = useLedger();
  const { act } = useAct();
  const [text, setText] = useState(() => textOf(row, column));
  const field = useRef<HTMLInputElement & HTMLSelectElement>(null);
  const ended = useRef(false);

  const read = column === 'asking' ? readAsking(row, text, homeCurrency) : null;

  useEffect(() => {
    field.current?.focus();
    if (column !== 'account') field.current?.select();
  }, [column]);

  const end = async (keep: boolean, value = text, byKey = false) => {
    if (ended.current) return;
    // What is no amount is refused where it stands; left alone, the price stays as it was.
    if (keep && byKey && isRefusal(read)) return;
    ended.current = true;
    const grid = field.current?.closest<HTMLElement>('[role=grid]');
    onEnd();
    grid?.focus();
    if (!keep || value === textOf(row, column) || isRefusal(read)) return;
    await act(() => editNamesAction({ nameIds: [row.name.id], edit: editOf(row, column, value, homeCurrency) }));
  };
  const onKeyDown = (event: KeyboardEvent) => {
    event.stopPropagation();
    if (event.key === 'Enter') void end(true, text, true);
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
    <>
      <Line
        ref={field}
        aria-label={label}
        aria-invalid={isRefusal(read)}
        aria-describedby="read-as"
        value={text}
        onChange={(event) => setText(event.target.value)}
        onKeyDown={onKeyDown}
        onBlur={() => void end(true)}
      />
      <ReadAs field={field} read={text === textOf(row, column) ? null : read} />
    </>
  );
}

/** What was understood of an amount while it is typed, or why it was not. */
function ReadAs({ field, read }: { field: RefObject<HTMLInputElement | null>; read: Amount | Refusal | null }) {
  const understood = read === null ? null : isRefusal(read) ? read.message : `read as ${spellAmount(read)}`;
  return (
    <Understood
      triggerRef={field}
      isNonModal
      isOpen={understood !== null}
      placement="bottom start"
      aria-label="What was read"
    >
      <span id="read-as" role="status" className={isRefusal(read) ? 'caution' : 'soft'}>
        {understood}
      </span>
    </Understood>
  );
}
