'use client';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { type BuyNowEnd, USUAL_AUCTION, USUAL_REVIEW_HOURS } from '@/core/selling';
import { readPhrases, readWholeNumbers, readWords } from '@/formats/lists/readWords';
import { minorIn } from '@/ui/controls/AmountField';
import { Button } from '@/ui/controls/Button';
import { Check } from '@/ui/controls/Check';
import { Choice, Field } from '@/ui/controls/Field';
import { Form, textOf } from '@/ui/controls/Form';
import { Actions } from '@/ui/overlay/Dialog';
import { Sentence } from '@/ui/text/Sentence';
import { Fields, Section } from '@/ui/text/Sheet';
import type { MarketplaceRow } from '@/usecases/marketplaces/marketplaces';
import { useSave } from '../../../acts/useSave';
import { useLedger } from '../../../frame/LedgerProvider';
import { saveMarketplaceAction } from '../../actions';
import { AttributesPart, attributesOf, type OptionLine } from './AttributesPart';
import { CsvColumnsPart, type CsvLine } from './CsvColumnsPart';
import { FeesPart, percentOf, type StepLine } from './FeesPart';

export interface Held {
  readonly id: number;
  readonly label: string;
}

interface MarketplaceFormProps {
  readonly marketplace: MarketplaceRow | null;
  readonly accounts: readonly Held[];
  readonly fields: readonly string[];
}

/** What is known of a marketplace: saved as a whole. */
export function MarketplaceForm({ marketplace, accounts, fields }: MarketplaceFormProps) {
  const router = useRouter();
  const { homeCurrency } = useLedger();
  const [rules, setRules] = useState(() => rulesOf(marketplace));
  const [currency, setCurrency] = useState(marketplace?.feesCurrency ?? homeCurrency);
  const [steps, setSteps] = useState<readonly StepLine[]>(
    () => marketplace?.steps.map(({ fromMinor, percent }) => ({ fromMinor, percent: String(percent) })) ?? [],
  );
  const [options, setOptions] = useState<readonly OptionLine[]>(() => optionLines(marketplace));
  const [columns, setColumns] = useState<readonly CsvLine[]>(marketplace?.csvColumns ?? []);
  const { save, refused, isBusy } = useSave();

  const saveMarketplace = async (form: FormData) => {
    const asked = saveMarketplaceAction({
      ...(marketplace ? { id: marketplace.id } : {}),
      ...textsIn(form),
      ...rules,
      ...(rules.accountId === null ? { accountId: undefined } : {}),
      feesCurrency: currency,
      steps: steps.map(({ fromMinor, percent }) => ({
        fromMinor: fromMinor ?? Number.NaN,
        percent: percentOf(percent),
      })),
      attributes: attributesOf(options),
      ...(columns.length > 0 ? { csvColumns: columns } : {}),
    });
    const id = await save(asked, 'Saved.');
    if (!marketplace && id !== null) router.push(`/setup/marketplaces/${id}`);
  };

  return (
    <Form aria-label="Marketplace" refused={refused} onSubmit={saveMarketplace}>
      <RulesPart marketplace={marketplace} accounts={accounts} rules={rules} onRules={setRules} />
      <FeesPart
        marketplace={marketplace}
        currency={currency}
        steps={steps}
        onCurrency={setCurrency}
        onSteps={setSteps}
      />
      <AttributesPart currency={currency} lines={options} onChange={setOptions} />
      <CsvColumnsPart fields={fields} lines={columns} onChange={setColumns} />
      <Actions>
        <Button type="submit" data-kind="primary" isDisabled={isBusy}>
          Save the marketplace
        </Button>
      </Actions>
    </Form>
  );
}

type Rules = ReturnType<typeof rulesOf>;

interface RulesPartProps {
  readonly marketplace: MarketplaceRow | null;
  readonly accounts: readonly Held[];
  readonly rules: Rules;
  readonly onRules: (rules: Rules) => void;
}

/** How a marketplace sells: currencies, auctions, review, categories. */
function RulesPart({ marketplace, accounts, rules, onRules }: RulesPartProps) {
  return (
    <Section aria-label="Rules">
      <Sentence>
        <Field
          data-wide="long"
          label="Marketplace"
          hideLabel
          placeholder="marketplace"
          name="label"
          defaultValue={marketplace?.label ?? ''}
        />
        sells in
        <Field
          label="Sells in"
          hideLabel
          placeholder="any currency"
          name="currencies"
          defaultValue={marketplace?.currencies.join(', ') ?? ''}
        />
        and looks at a listing for up to
        <Field
          data-wide="short"
          label="Review, hours at most"
          hideLabel
          name="reviewHours"
          defaultValue={String(marketplace?.reviewHours ?? USUAL_REVIEW_HOURS)}
        />
        hours.
      </Sentence>
      <AuctionSentence marketplace={marketplace} rules={rules} onRules={onRules} />
      <Fields>
        <Choice
          label="Account at the marketplace itself"
          value={rules.accountId === null ? '' : String(rules.accountId)}
          onChange={(id) => onRules({ ...rules, accountId: id === '' ? null : Number(id) })}
          hint="names there need no proof"
          options={[
            { value: '', text: 'none' },
            ...accounts.map(({ id, label }) => ({ value: String(id), text: label })),
          ]}
        />
        <Field
          label="Categories"
          name="categories"
          rows={3}
          defaultValue={marketplace?.categories.join('\n') ?? ''}
          hint="a line each"
        />
        <Field label="Notes" name="notes" rows={3} defaultValue={marketplace?.notes ?? ''} />
      </Fields>
      <Check isSelected={rules.wholeUnits} onChange={(wholeUnits) => onRules({ ...rules, wholeUnits })}>
        Prices in whole units only
      </Check>
      <Check isSelected={rules.payoutSet} onChange={(payoutSet) => onRules({ ...rules, payoutSet })}>
        The account that it pays out to is set there
      </Check>
    </Section>
  );
}

/** How its auctions run; that it holds none is an empty blank. */
function AuctionSentence({ marketplace, rules, onRules }: Omit<RulesPartProps, 'accounts'>) {
  return (
    <Sentence>
      Auctions run
      <Field
        label="Auctions run, days"
        hideLabel
        placeholder="it holds none"
        name="auctionDays"
        defaultValue={marketplace?.auctionDays.join(', ') ?? ''}
      />
      days; a late bid moves the close by
      <Field
        data-wide="short"
        label="A late bid moves the close, minutes"
        hideLabel
        name="extensionMinutes"
        defaultValue={String(marketplace?.extensionMinutes ?? USUAL_AUCTION.extensionMinutes)}
      />
      minutes, and buying at once ends
      <Choice<BuyNowEnd>
        label="Buy now in an auction ends"
        hideLabel
        value={rules.buyNowEnds}
        onChange={(buyNowEnds) => onRules({ ...rules, buyNowEnds })}
        options={[
          { value: 'reserve met', text: 'when the reserve is met' },
          { value: 'first bid', text: 'with the first bid' },
          { value: 'close', text: 'at the close' },
        ]}
      />
    </Sentence>
  );
}

function rulesOf(marketplace: MarketplaceRow | null) {
  return {
    wholeUnits: marketplace?.wholeUnits ?? true,
    payoutSet: marketplace?.payoutSet ?? false,
    buyNowEnds: marketplace?.buyNowEnds ?? USUAL_AUCTION.buyNowEnds,
    accountId: marketplace?.accountId ?? null,
  };
}

function optionLines(marketplace: MarketplaceRow | null): OptionLine[] {
  return (marketplace?.attributes ?? []).flatMap(({ label, options }) =>
    options.map((option) => ({
      attribute: label,
      option: option.label,
      minor: option.minor === 0 ? null : option.minor,
    })),
  );
}

/** What stands in the fields of the form. */
function textsIn(form: FormData) {
  const minor = (key: string) => minorIn(form, key) ?? 0;
  return {
    label: textOf(form, 'label'),
    currencies: readWords(textOf(form, 'currencies').toUpperCase()),
    percent: percentOf(textOf(form, 'percent') || '0'),
    floorMinor: minor('floorMinor'),
    saleFeeMinor: minor('saleFeeMinor'),
    listingFeeMinor: minor('listingFeeMinor'),
    membershipMinor: minor('membershipMinor'),
    categoryMinor: minor('categoryMinor'),
    auctionDays: readWholeNumbers(textOf(form, 'auctionDays')),
    extensionMinutes: Number(textOf(form, 'extensionMinutes') || USUAL_AUCTION.extensionMinutes),
    reviewHours: Number(textOf(form, 'reviewHours') || 0),
    categories: readPhrases(textOf(form, 'categories')),
    notes: textOf(form, 'notes'),
  };
}
