'use client';
import { memo, useCallback, useLayoutEffect, useRef, useState } from 'react';
import styled from 'styled-components';
import { AUTO_RENEW_SETTINGS } from '@/core/funding';
import { EVERY_NAME, type LedgerView } from '@/core/ledger';
import { PHASES } from '@/core/lifecycle';
import { Button, ButtonLink } from '@/ui/controls/Button';
import { InputBox } from '@/ui/controls/Field';
import { PHASE_WORDS } from '@/ui/text/words';
import type { SavedView } from '@/usecases/names/views';
import { useLedger } from '../frame/LedgerProvider';
import type { LedgerMeta } from '../frame/views';
import { ChecksChip, FilterChip } from './FilterChips';
import { isMoreSet, MoreFilters } from './MoreFilters';
import type { Columns } from './useColumns';
import { ColumnsMenu, ViewsMenu } from './ViewsMenu';

const Bar = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px;
  padding: 8px 14px;
  border-bottom: 1px solid var(--rule);
  & input[type='search'] { width: 150px; min-height: 28px; }
  @media (max-width: 480px) { flex-wrap: nowrap; gap: 6px; padding: 4px 12px; overflow-x: auto; & > * { flex: none; } & input[type='search'] { min-height: 44px; } }
  @media (max-height: 520px) { flex-wrap: nowrap; padding-block: 2px; overflow-x: auto; & > * { flex: none; } }
  @media print { display: none; }
`;

interface FilterBarProps {
  readonly view: LedgerView;
  readonly onChange: (view: LedgerView) => void;
  readonly tags: readonly string[];
  readonly views: readonly SavedView[];
  readonly columns: Columns;
  readonly query: string;
}

const DAYS = [7, 30, 60, 90, 150, 365] as const;

/** The filters in plain words, saved views, and the columns. */
export function FilterBar({ view, onChange, tags, views, columns, query }: FilterBarProps) {
  const set = useChange(view, onChange);
  const isPlain =
    query === '' || JSON.stringify({ ...view, sort: 'deadline', descending: false }) === JSON.stringify(EVERY_NAME);
  return (
    <Bar role="search" aria-label="Filters">
      <InputBox
        type="search"
        aria-label="Any part of a name"
        placeholder="Any part of a name"
        value={view.text}
        onChange={(event) => set({ text: event.target.value })}
      />
      <StillChips view={view} tags={tags} set={set} />
      {!isPlain && (
        <Button
          data-kind="plain"
          onPress={() => onChange({ ...EVERY_NAME, sort: view.sort, descending: view.descending })}
        >
          Show every name
        </Button>
      )}
      <Right>
        <ViewsMenu views={views} query={query} columns={columns} />
        <StillColumnsMenu columns={columns} />
        <ButtonLink href="/ledger/add">Add names</ButtonLink>
      </Right>
    </Bar>
  );
}

const StillColumnsMenu = memo(ColumnsMenu);

type Change = (change: Partial<LedgerView>) => void;

/** Changes the view that is shown: the same function throughout, so that only what shows a change is drawn anew. */
function useChange(view: LedgerView, onChange: (view: LedgerView) => void): Change {
  const shown = useRef(view);
  useLayoutEffect(() => {
    shown.current = view;
  });
  return useCallback((change) => onChange({ ...shown.current, ...change }), [onChange]);
}

interface ChipsProps {
  readonly view: LedgerView;
  readonly tags: readonly string[];
  readonly set: Change;
}

/** The filters that are chosen, not typed. */
function Chips({ view, tags, set }: ChipsProps) {
  const { meta } = useLedger();
  const [isMoreWanted, setMoreWanted] = useState(false);
  const accounts = meta?.rules.accounts ?? [];
  const showMore = isMoreWanted || isMoreSet(view);
  return (
    <>
      <DueChip view={view} set={set} />
      <ChecksChip
        label="account"
        values={view.accountIds}
        of={accounts.map((account) => account.id)}
        word={(id) => accounts.find((account) => account.id === id)?.label ?? '?'}
        onChange={(accountIds) => set({ accountIds })}
      />
      <ChecksChip
        label="ending"
        values={view.endings}
        of={endingsIn(meta, view)}
        word={(ending) => `.${ending}`}
        onChange={(chosen) => set({ endings: chosen })}
      />
      {(showMore || view.phases.length > 0) && (
        <ChecksChip
          label="phase"
          values={view.phases}
          of={PHASES}
          word={(phase) => PHASE_WORDS[phase].word}
          onChange={(phases) => set({ phases })}
        />
      )}
      {(showMore || view.settings.length > 0) && (
        <ChecksChip
          label="auto-renew"
          values={view.settings}
          of={AUTO_RENEW_SETTINGS}
          word={(setting) => (setting === 'unknown' ? 'auto-renew not known' : `auto-renew ${setting}`)}
          onChange={(settings) => set({ settings })}
        />
      )}
      {showMore ? (
        <MoreFilters view={view} tags={tags} set={set} />
      ) : (
        <Button data-kind="plain" aria-label="More filters" onPress={() => setMoreWanted(true)}>
          + more
        </Button>
      )}
    </>
  );
}

/** What the chips do not show. */
const ELSEWHERE: ReadonlySet<string> = new Set<keyof LedgerView>(['text', 'sort', 'descending']);
const isSame = (a: LedgerView, b: LedgerView): boolean =>
  a === b ||
  (Object.keys(a) as (keyof LedgerView)[]).every((filter) => ELSEWHERE.has(filter) || a[filter] === b[filter]);

/** Not drawn anew while somebody types or sorts. */
const StillChips = memo(
  Chips,
  (before, after) => before.set === after.set && before.tags === after.tags && isSame(before.view, after.view),
);

/** How soon a deadline has to come. */
function DueChip({ view, set }: Omit<ChipsProps, 'tags'>) {
  return (
    <FilterChip
      label="due within"
      text={view.dueWithinDays === null ? 'due any time' : `due within ${view.dueWithinDays} days`}
      set={view.dueWithinDays !== null}
      onClear={() => set({ dueWithinDays: null })}
    >
      {DAYS.map((days) => (
        <Button key={days} data-kind="plain" onPress={() => set({ dueWithinDays: days })}>
          within {days} days
        </Button>
      ))}
    </FilterChip>
  );
}

/** The endings that can be chosen: those with a policy of their own, the usual generic ones, and those chosen already. */
function endingsIn(meta: LedgerMeta | null, view: LedgerView): string[] {
  if (!meta) return [];
  const own = meta.rules.policies.map((policy) => policy.ending).filter((ending) => ending !== '*');
  return [...new Set([...own, 'com', 'net', 'org', ...view.endings])].sort();
}

const Right = styled.div`
  display: flex;
  align-items: center;
  gap: 6px;
  margin-left: auto;
`;
