'use client';
import { useState } from 'react';
import { isRefusal, type Refusal } from '@/core/refusal';
import { formatDay, parseDay } from '@/core/time';
import type { Mapping } from '@/formats/portfolio/columns';
import { Button } from '@/ui/controls/Button';
import { Check } from '@/ui/controls/Check';
import { Field } from '@/ui/controls/Field';
import { Actions } from '@/ui/overlay/Dialog';
import { formatAmount } from '@/ui/text/figures';
import { Fields, Ruled, Section } from '@/ui/text/Sheet';
import { Wide } from '@/ui/text/Wide';
import type { ImportSummary, PreviewRow, RowOutcome } from '@/usecases/imports/preview';
import { mendRowAction } from '../actions';
import { FIELD_WORDS as FIELD_WORDS_OF_LISTS } from './MappingTable';
import { useOutcomeRows } from './useOutcomeRows';

interface OutcomeRowsProps {
  readonly id: string;
  readonly outcome: RowOutcome;
  readonly count: { readonly rows: number; readonly taken: number };
  readonly accounts: readonly { readonly id: number; readonly label: string }[];
  readonly mapping: Mapping;
  readonly onSummary: (answer: ImportSummary | Refusal) => void;
}

const WORDS: Readonly<Record<RowOutcome, string>> = {
  new: 'New',
  changed: 'Changed',
  conflict: 'Held elsewhere in the ledger',
  unchanged: 'Unchanged',
  refused: 'Refused',
  missing: 'No longer there',
};
const HELD_BACK: readonly RowOutcome[] = ['refused', 'unchanged'];

/** The rows of a list that came out one way, a hundred at a time, with what is taken. */
export function OutcomeRows(props: OutcomeRowsProps) {
  const { outcome, count } = props;
  const [shown, setShown] = useState(outcome !== 'unchanged');
  const { rows, hasFailed, more, choose } = useOutcomeRows(props, shown);
  const choosable = !HELD_BACK.includes(outcome);

  if (count.rows === 0) return null;
  return (
    <Section aria-label={WORDS[outcome]}>
      <Actions>
        <h2>
          {WORDS[outcome]}: {count.rows.toLocaleString('en')}
        </h2>
        {choosable && (
          <Button data-kind="plain" onPress={() => void choose(null, count.taken < count.rows)}>
            {count.taken < count.rows ? 'Take all' : 'Take none'}
          </Button>
        )}
        {!shown && (
          <Button data-kind="plain" onPress={() => setShown(true)}>
            Show
          </Button>
        )}
      </Actions>
      {shown && outcome === 'conflict' && (
        <p>
          The ledger has these names in another account than this list. Take those that have moved; the others stay
          where they are.
        </p>
      )}
      {shown && rows.length === 0 && !hasFailed && (
        <p className="soft" role="status">
          Fetching the rows…
        </p>
      )}
      {shown && rows.length > 0 && (
        <RowsTable rows={rows} of={props} onTake={(row, taken) => void choose([row.ascii ?? ''], taken)} />
      )}
      {hasFailed && (
        <Actions role="alert">
          <strong>The rows could not be fetched.</strong>
          <Button onPress={() => void more(rows.length)}>Try again</Button>
        </Actions>
      )}
      {shown && !hasFailed && rows.length > 0 && rows.length < count.rows && (
        <Button onPress={() => void more(rows.length)}>Show the next hundred</Button>
      )}
    </Section>
  );
}

/** Why a row is refused, and its cells to be mended where they stand. */
function Mending({
  id,
  row,
  mapping,
  onSummary,
}: {
  id: string;
  row: PreviewRow;
  mapping: Mapping;
  onSummary: OutcomeRowsProps['onSummary'];
}) {
  const [cells, setCells] = useState<readonly string[] | null>(null);
  const [problem, setProblem] = useState(row.message);
  const written = cellsOf(row.input ?? '[]');
  const send = async (isInstead: boolean) => {
    const answer = await mendRowAction(id, { line: row.line, cells: cells ?? written, isInstead });
    if (isRefusal(answer)) setProblem(answer.message);
    else onSummary(answer);
  };
  return (
    <>
      <span role="status">{problem}</span>{' '}
      {row.code === 'name-twice' && (
        <Button data-kind="plain" onPress={() => void send(true)}>
          Take line {row.line} instead
        </Button>
      )}
      {cells === null ? (
        <Button data-kind="plain" aria-label={`Mend line ${row.line}`} onPress={() => setCells(written)}>
          Mend…
        </Button>
      ) : (
        <Fields>
          {mapping.columns.map(
            (column, i) =>
              column.field && (
                <Field
                  key={column.field}
                  label={FIELD_WORDS_OF_LISTS[column.field]}
                  value={cells[i] ?? ''}
                  onChange={(text) =>
                    setCells(mapping.columns.map((_, place) => (place === i ? text : (cells[place] ?? ''))))
                  }
                />
              ),
          )}
          <Button onPress={() => void send(false)}>Read line {row.line} again</Button>
        </Fields>
      )}
    </>
  );
}

function cellsOf(input: string): string[] {
  try {
    return JSON.parse(input) as string[];
  } catch {
    return [];
  }
}

function cells(input: string): string {
  return cellsOf(input)
    .filter((cell) => cell !== '')
    .join(' · ')
    .slice(0, 120);
}

const FIELD_WORDS: Readonly<Record<string, string>> = {
  term_end: 'term ends',
  registered: 'registered',
  setting: 'auto-renew',
  lock: 'lock',
  privacy: 'privacy',
  name_servers: 'name servers',
  tags: 'tags',
  purpose: 'purpose',
  never_lost: 'never to be lost',
  notes: 'notes',
  asking_minor: 'asking',
  account_id: 'account',
  account: 'account',
  gone_at: 'back again',
  paid: 'price paid',
};

/** What a row would change, field by field. */
function Brings({ row, accounts }: { row: PreviewRow; accounts: OutcomeRowsProps['accounts'] }) {
  const { after } = row;
  const keys = Object.keys(after).filter((key) => key in FIELD_WORDS);
  const word = (key: string, value: unknown, source: Readonly<Record<string, unknown>>): string => {
    if (value === null || value === undefined || value === '') return 'nothing';
    if (key === 'account_id') return accounts.find((account) => account.id === value)?.label ?? String(value);
    if (key === 'term_end' || key === 'registered') return dayOfText(String(value));
    if (key === 'asking_minor')
      return formatAmount(
        { minor: Number(value), currency: String(source.asking_currency ?? after.asking_currency ?? 'USD') },
        true,
      );
    if (key === 'paid') return formatAmount(value as { minor: number; currency: string });
    if (typeof value === 'boolean') return value ? 'on' : 'off';
    return Array.isArray(value) ? value.join(', ') : String(value);
  };
  return (
    <>
      {row.message && <div className="caution">{row.message}</div>}
      {keys.map((key, i) => (
        <span key={key}>
          {i > 0 && ', '}
          <span className="soft">{FIELD_WORDS[key]}</span>{' '}
          {row.before && key !== 'gone_at' ? `${word(key, row.before[key], row.before)} → ` : ''}
          {key === 'gone_at' ? 'yes' : word(key, after[key], after)}
        </span>
      ))}
    </>
  );
}

function dayOfText(text: string): string {
  const day = parseDay(text.slice(0, 10));
  return day ? formatDay(day) : text;
}

/** The rows: what each says or brings, and whether it is taken. */
function RowsTable({
  rows,
  of,
  onTake,
}: {
  rows: readonly PreviewRow[];
  of: OutcomeRowsProps;
  onTake: (row: PreviewRow, isTaken: boolean) => void;
}) {
  const { id, outcome, accounts, mapping, onSummary } = of;
  const choosable = !HELD_BACK.includes(outcome);
  return (
    <Wide>
      <Ruled>
        <thead>
          <tr>
            {choosable && <th>Take</th>}
            <th className="figure">Line</th>
            <th>{outcome === 'refused' ? 'What it says' : 'Name'}</th>
            <th>{outcome === 'refused' ? 'Why it is refused' : 'What it brings'}</th>
          </tr>
        </thead>
        <tbody>
          {rows.map((row) => (
            <tr key={`${row.line} ${row.ascii}`} data-off={choosable && !row.taken}>
              {choosable && (
                <td>
                  <Check
                    aria-label={`Take ${row.ascii}`}
                    isSelected={row.taken}
                    onChange={(taken) => onTake(row, taken)}
                  />
                </td>
              )}
              <td className="figure soft">{row.line || ''}</td>
              <td className="name">{outcome === 'refused' ? cells(row.input ?? '[]') : row.unicode}</td>
              <td>
                {outcome === 'refused' ? (
                  <Mending id={id} row={row} mapping={mapping} onSummary={onSummary} />
                ) : (
                  <Brings row={row} accounts={accounts} />
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </Ruled>
    </Wide>
  );
}
