'use client';
import { type LedgerView, PURPOSES } from '@/core/ledger';
import { Button } from '@/ui/controls/Button';
import { useLedger } from '../frame/LedgerProvider';
import { ChecksChip, Chip, FilterChip, RangeChip } from './FilterChips';

interface MoreFiltersProps {
  readonly view: LedgerView;
  readonly tags: readonly string[];
  readonly set: (change: Partial<LedgerView>) => void;
}

/** The filters that are not shown until they are wanted, or one of them is set. */
export function MoreFilters({ view, tags, set }: MoreFiltersProps) {
  const { homeCurrency } = useLedger();
  return (
    <>
      <ChecksChip
        label="purpose"
        values={view.purposes}
        of={PURPOSES}
        word={(purpose) => purpose}
        onChange={(purposes) => set({ purposes })}
      />
      <ChecksChip
        label="tag"
        values={view.tags}
        of={tags}
        word={(tag) => tag}
        onChange={(chosen) => set({ tags: chosen })}
      />
      <RangeChip
        label="cost now"
        from={view.costFrom}
        to={view.costTo}
        currency={homeCurrency}
        onChange={(costFrom, costTo) => set({ costFrom, costTo })}
      />
      <RangeChip
        label="asking"
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
        <Button onPress={() => set({ neverLost: view.neverLost ? null : true })}>never to be lost</Button>
      </Chip>
    </>
  );
}

/** True when one of them is set, so that it is seen. */
export function isMoreSet(view: LedgerView): boolean {
  return (
    view.purposes.length > 0 ||
    view.tags.length > 0 ||
    view.costFrom !== null ||
    view.costTo !== null ||
    view.askingFrom !== null ||
    view.askingTo !== null ||
    view.neverLost !== null
  );
}
