'use client';
import { useState } from 'react';
import type { Amount } from '@/core/money';
import { type Draft, type ListingKind, PRICE_NAMES, type PriceName, pricesOf, withPrice } from '@/core/selling';
import { AmountField } from '@/ui/controls/AmountField';
import { Button } from '@/ui/controls/Button';
import { Choice } from '@/ui/controls/Field';
import { Sentence } from '@/ui/text/Sentence';
import { PRICE_WORDS } from '@/ui/text/sellingWords';
import { usePricing } from './PricingContext';

interface SameForAllProps {
  readonly kinds: readonly ListingKind[];
  /** Changes the chosen drafts, as one step that can be taken back. */
  readonly onEdit: (part: (draft: Draft) => Partial<Draft>) => void;
}

const NOTHING = '';

/** One value for all chosen listings: a price, a category, or something that the marketplace asks. */
export function SameForAll({ kinds, onEdit }: SameForAllProps) {
  return (
    <details>
      <summary>The same for all chosen</summary>
      <SamePrice kinds={kinds} onEdit={onEdit} />
      <SameAnswer onEdit={onEdit} />
    </details>
  );
}

function SamePrice({ kinds, onEdit }: SameForAllProps) {
  const { currency } = usePricing().at;
  const used = PRICE_NAMES.filter((name) => kinds.some((kind) => pricesOf(kind).includes(name)));
  const [price, setPrice] = useState<PriceName>('asking');
  const [read, setRead] = useState<Amount | null>(null);
  const value = used.includes(price) ? price : (used[0] ?? 'asking');
  return (
    <Sentence>
      Set
      <Choice
        label="Price to set for all"
        hideLabel
        value={value}
        onChange={setPrice}
        options={used.map((name) => ({ value: name, text: PRICE_WORDS[name] }))}
      />
      to
      <AmountField
        label="Amount for all"
        hideLabel
        currency={currency}
        placeholder={currency}
        onChange={(_, amount) => setRead(amount)}
      />
      <Button isDisabled={read === null} onPress={() => read && onEdit((draft) => withPrice(draft, value, read.minor))}>
        Set it for all
      </Button>
    </Sentence>
  );
}

const CATEGORY = 'category';

/** A category, or what the marketplace asks of every listing; nothing where it asks nothing. */
function SameAnswer({ onEdit }: Pick<SameForAllProps, 'onEdit'>) {
  const { marketplace } = usePricing().at;
  const [label, setLabel] = useState(NOTHING);
  const [option, setOption] = useState(NOTHING);
  const categories = marketplace?.categories ?? [];
  const attributes = marketplace?.attributes ?? [];
  const asked = [...(categories.length > 0 ? [CATEGORY] : []), ...attributes.map((attribute) => attribute.label)];
  if (asked.length === 0) return null;
  const options =
    label === CATEGORY
      ? categories
      : (attributes.find((attribute) => attribute.label === label)?.options.map((one) => one.label) ?? []);
  const setForAll = () =>
    onEdit((draft) => {
      if (label === CATEGORY) return { categories: option === NOTHING ? [] : [option] };
      const { [label]: _before, ...others } = draft.attributes;
      return { attributes: option === NOTHING ? others : { ...others, [label]: option } };
    });
  return (
    <Sentence>
      Set
      <Choice
        label="What to set for all"
        hideLabel
        value={label}
        onChange={(next) => {
          setLabel(next);
          setOption(NOTHING);
        }}
        options={[{ value: NOTHING, text: 'something it asks' }, ...asked.map((one) => ({ value: one, text: one }))]}
      />
      to
      <Choice
        label="Value for all"
        hideLabel
        value={option}
        onChange={setOption}
        options={[{ value: NOTHING, text: 'none' }, ...options.map((one) => ({ value: one, text: one }))]}
      />
      <Button isDisabled={label === NOTHING} onPress={setForAll}>
        Set this for all
      </Button>
    </Sentence>
  );
}
