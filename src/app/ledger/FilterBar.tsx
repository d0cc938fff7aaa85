'use client';
import { X } from 'lucide-react';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { Dialog, DialogTrigger } from 'react-aria-components';
import styled from 'styled-components';
import { AUTO_RENEW_SETTINGS } from '@/core/funding';
import { EVERY_NAME, type LedgerView, PURPOSES } from '@/core/ledger';
import { PHASES } from '@/core/lifecycle';
import { isRefusal } from '@/core/refusal';
import { Button, ButtonLink } from '@/ui/controls/Button';
import { Check } from '@/ui/controls/Check';
import { Field, InputBox } from '@/ui/controls/Field';
import { report } from '@/ui/overlay/Toasts';
import { PHASE_WORDS } from '@/ui/text/words';
import type { SavedView } from '@/usecases/names/views';
import { useLedger } from '../frame/LedgerProvider';
import { dropViewAction, saveViewAction } from './actions';
import { ChecksChip, Chip, FilterChip, RangeChip, Sheet } from './FilterChips';
import { COLUMN_IDS, LEDGER_COLUMNS } from './ledgerColumns';
import type { Columns } from './useColumns';

const Bar = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px;
  padding: 8px 14px;
  border-bottom: 1px solid var(--rule);
  & input[type='search'] { width: 150px; min-height: 28px; }
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
const MORE = ['purpose', 'tag', 'cost now', 'asking', 'never to be lost'] as const;

/** The filters in plain words, saved views, and the columns. */
export function FilterBar({ view, onChange, tags, views: first, columns, query }: FilterBarProps) {
  const router = useRouter();
  const { meta, homeCurrency } = useLedger();
  const [views, setViews] = useState(first);
  const [more, setMore] = useState(false);
  const [label, setLabel] = useState('');
  const set = (change: Partial<LedgerView>) => onChange({ ...view, ...change });
  const accounts = meta?.rules.accounts ?? [];
  const endings = [
    ...new Set(
      meta
        ? [
            ...meta.rules.policies.map((policy) => policy.ending).filter((ending) => ending !== '*'),
            'com',
            'net',
            'org',
            ...view.endings,
          ]
        : [],
    ),
  ].sort();
  const isPlain =
    query === '' || JSON.stringify({ ...view, sort: 'deadline', descending: false }) === JSON.stringify(EVERY_NAME);
  const showMore =
    more ||
    view.purposes.length > 0 ||
    view.tags.length > 0 ||
    view.costFrom !== null ||
    view.costTo !== null ||
    view.askingFrom !== null ||
    view.askingTo !== null ||
    view.neverLost !== null;

  const save = async () => {
    const answer = await saveViewAction(label, query, columns.shown);
    if (isRefusal(answer)) report({ text: answer.message, problem: true });
    else {
      setViews(answer);
      setLabel('');
      report({ text: `Kept as “${label.trim()}”.` });
    }
  };

  return (
    <Bar role="search" aria-label="Filters">
      <InputBox
        type="search"
        aria-label="Any part of a name"
        placeholder="Any part of a name"
        value={view.text}
        onChange={(event) => set({ text: event.target.value })}
      />
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
        of={endings}
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
      {showMore && (
        <>
          <ChecksChip
            label={MORE[0]}
            values={view.purposes}
            of={PURPOSES}
            word={(purpose) => purpose}
            onChange={(purposes) => set({ purposes })}
          />
          <ChecksChip
            label={MORE[1]}
            values={view.tags}
            of={tags}
            word={(tag) => tag}
            onChange={(chosen) => set({ tags: chosen })}
          />
          <RangeChip
            label={MORE[2]}
            from={view.costFrom}
            to={view.costTo}
            currency={homeCurrency}
            onChange={(costFrom, costTo) => set({ costFrom, costTo })}
          />
          <RangeChip
            label={MORE[3]}
            from={view.askingFrom}
            to={view.askingTo}
            currency={homeCurrency}
            onChange={(askingFrom, askingTo) => set({ askingFrom, askingTo })}
          />
          <FilterChip
            label="sale"
            text={view.forSale === null ? 'for sale or not' : view.forSale ? 'for sale' : 'not for sale'}
            set={view.forSale !== null}
            onClear={() => set({ forSale: null })}
          >
            <Button data-kind="plain" onPress={() => set({ forSale: true })}>
              for sale
            </Button>
            <Button data-kind="plain" onPress={() => set({ forSale: false })}>
              not for sale
            </Button>
          </FilterChip>
          <Chip data-set={view.dateless}>
            <Button onPress={() => set({ dateless: !view.dateless })}>end not known</Button>
          </Chip>
          <Chip data-set={view.neverLost === true}>
            <Button onPress={() => set({ neverLost: view.neverLost ? null : true })}>{MORE[4]}</Button>
          </Chip>
        </>
      )}
      {!showMore && (
        <Button data-kind="plain" aria-label="More filters" onPress={() => setMore(true)}>
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
        <DialogTrigger>
          <Button data-kind="plain">Views</Button>
          <Sheet>
            <Dialog aria-label="Views">
              {views.map((saved) => (
                <ViewLine key={saved.id}>
                  <Button
                    data-kind="plain"
                    slot="close"
                    onPress={() =>
                      router.push(
                        `/ledger?${saved.query}${saved.columns.length > 0 ? `&columns=${saved.columns.join(',')}` : ''}`,
                      )
                    }
                  >
                    {saved.label}
                  </Button>
                  <Button
                    data-kind="plain"
                    aria-label={`Forget the view ${saved.label}`}
                    onPress={async () => setViews(await dropViewAction(saved.id))}
                  >
                    <X size={12} aria-hidden />
                  </Button>
                </ViewLine>
              ))}
              {views.length === 0 && <span className="soft">No view has been kept yet.</span>}
              <Field label="Keep this view as" value={label} onChange={setLabel} />
              <Button onPress={() => void save()} isDisabled={label.trim() === ''}>
                Save this view
              </Button>
            </Dialog>
          </Sheet>
        </DialogTrigger>
        <DialogTrigger>
          <Button data-kind="plain">Columns</Button>
          <Sheet>
            <Dialog aria-label="Columns">
              {COLUMN_IDS.map((id) => (
                <Check
                  key={id}
                  isSelected={columns.shown.includes(id)}
                  isDisabled={id === 'name'}
                  onChange={(on) =>
                    columns.setShown(on ? [...columns.shown, id] : columns.shown.filter((other) => other !== id))
                  }
                >
                  {LEDGER_COLUMNS[id].label}
                </Check>
              ))}
            </Dialog>
          </Sheet>
        </DialogTrigger>
        <ButtonLink href="/ledger/add">Add names</ButtonLink>
      </Right>
    </Bar>
  );
}

const Right = styled.div`
  display: flex;
  align-items: center;
  gap: 6px;
  margin-left: auto;
`;

const ViewLine = styled.div`
  display: flex;
  justify-content: space-between;
`;
