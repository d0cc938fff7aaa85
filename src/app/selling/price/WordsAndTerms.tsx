'use client';
import type { Draft, MarketplaceAttribute } from '@/core/selling';
import { Check } from '@/ui/controls/Check';
import { Choice, Field } from '@/ui/controls/Field';
import { formatAmount } from '@/ui/text/figures';
import { usePricing } from './PricingContext';

interface PartProps {
  readonly draft: Draft;
  readonly onEdit: (part: Partial<Draft>) => void;
}

/** What buyers read of a name, and what the marketplace asks beside its prices. */
export function WordsAndTerms({ draft, onEdit }: PartProps) {
  const { marketplace } = usePricing().at;
  return (
    <details>
      <summary>Words and terms</summary>
      <div style={{ display: 'flex', flexDirection: 'column', gap: 10 }}>
        <Field label="One line" value={draft.pitch} onChange={(pitch) => onEdit({ pitch })} />
        <Field
          label="Description"
          rows={4}
          value={draft.description}
          onChange={(description) => onEdit({ description })}
        />
        <Categories draft={draft} onEdit={onEdit} />
        {draft.kind === 'auction' && (
          <Check isSelected={draft.reserveShown} onChange={(reserveShown) => onEdit({ reserveShown })}>
            Show the reserve
          </Check>
        )}
        <Check isSelected={draft.withSite} onChange={(withSite) => onEdit({ withSite })}>
          With its site, not the name alone
        </Check>
        {marketplace?.attributes.map((attribute) => (
          <Attribute
            key={attribute.label}
            attribute={attribute}
            currency={marketplace.feesCurrency}
            chosen={draft.attributes[attribute.label] ?? ''}
            onChoose={(option) => onEdit({ attributes: withChoice(draft, attribute.label, option) })}
          />
        ))}
      </div>
    </details>
  );
}

function withChoice({ attributes }: Draft, label: string, option: string): Draft['attributes'] {
  const { [label]: _before, ...others } = attributes;
  return option === '' ? others : { ...others, [label]: option };
}

interface AttributeProps {
  readonly attribute: MarketplaceAttribute;
  readonly currency: string;
  readonly chosen: string;
  readonly onChoose: (option: string) => void;
}

/** Something that the marketplace asks: ticked where only yes can be said, else one out of its options. */
function Attribute({ attribute: { label, options }, currency, chosen, onChoose }: AttributeProps) {
  const fee = (minor: number) => (minor > 0 ? `, ${formatAmount({ minor, currency })}` : '');
  const [only] = options;
  if (options.length === 1 && only?.label === 'yes')
    return (
      <Check isSelected={chosen === 'yes'} onChange={(isOn) => onChoose(isOn ? 'yes' : '')}>
        {label}
        {fee(only.minor)}
      </Check>
    );
  return (
    <Choice
      label={label}
      value={chosen}
      onChange={onChoose}
      options={[
        { value: '', text: 'none' },
        ...options.map((option) => ({ value: option.label, text: `${option.label}${fee(option.minor)}` })),
      ]}
    />
  );
}

/** One category, and more where the marketplace takes more. */
function Categories({ draft, onEdit }: PartProps) {
  const { marketplace } = usePricing().at;
  if (!marketplace || marketplace.categories.length === 0) return null;
  const [first, ...others] = draft.categories;
  return (
    <>
      <Choice
        label="Category"
        value={first ?? null}
        placeholder="none"
        onChange={(category) => onEdit({ categories: [category, ...others] })}
        options={marketplace.categories.map((category) => ({ value: category, text: category }))}
      />
      {first !== undefined &&
        marketplace.categories
          .filter((category) => category !== first)
          .map((category) => (
            <Check
              key={category}
              isSelected={others.includes(category)}
              onChange={(isOn) =>
                onEdit({
                  categories: isOn
                    ? [...draft.categories, category]
                    : draft.categories.filter((one) => one !== category),
                })
              }
            >
              also {category}
              {marketplace.categoryMinor > 0 &&
                `, ${formatAmount({ minor: marketplace.categoryMinor, currency: marketplace.feesCurrency })} more`}
            </Check>
          ))}
    </>
  );
}
