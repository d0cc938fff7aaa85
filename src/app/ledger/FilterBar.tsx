'use client';
import { useState } from 'react';
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
  const { meta } = useLedger();
  const [isMoreWanted, setMoreWanted] = useState(false);
  const set = (change: Partial<LedgerView>) => onChange({ ...view, ...change });
  const accounts = meta?.rules.accounts ?? [];
  const isPlain =
    query === '' || JSON.stringify({ ...view, sort: 'deadline', descending: false }) === JSON.stringify(EVERY_NAME);
  const showMore = isMoreWanted || isMoreSet(view);
  return (
    <Bar role="search" aria-label="Filters">
      <InputBox
        type="search"
        aria-label="Any part of a name"
        placeholder="Any part of a name"
        value={view.text}
        onChange={(event) => set({ text: event.target.value })}
      />
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
        <ColumnsMenu columns={columns} />
        <ButtonLink href="/ledger/add">Add names</ButtonLink>
      </Right>
    </Bar>
  );
}

/** How soon a deadline has to come. */
function DueChip({ view, set }: { view: LedgerView; set: (change: Partial<LedgerView>) => void }) {
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
