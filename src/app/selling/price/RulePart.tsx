'use client';
import { useState } from 'react';
import { isRefusal } from '@/core/refusal';
import {
  type ListingKind,
  PRICE_NAMES,
  type PriceName,
  type PriceRule,
  pricesOf,
  ROUNDINGS,
  type Rounding,
  RULE_BASES,
  type RuleBase,
} from '@/core/selling';
import { Button } from '@/ui/controls/Button';
import { Choice, Field } from '@/ui/controls/Field';
import { typedNumber } from '@/ui/text/figures';
import { PRICE_WORDS } from '@/ui/text/sellingWords';
import { Row } from './Row';

const RULE_WORDS: Readonly<Record<RuleBase, string>> = {
  cost: 'what it has cost',
  comparable: 'the median of like sales',
  asking: 'its asking price',
};

interface RulePartProps {
  readonly kinds: readonly ListingKind[];
  readonly onRule: (price: PriceName, rule: PriceRule) => void;
  readonly canUndo: boolean;
  readonly onUndo: () => void;
}

/** Prices of all chosen names by one rule: a factor on a base, rounded. */
export function RulePart({ kinds, onRule, canUndo, onUndo }: RulePartProps) {
  const used = PRICE_NAMES.filter((name) => kinds.some((kind) => pricesOf(kind).includes(name)));
  const [price, setPrice] = useState<PriceName>('asking');
  const [base, setBase] = useState<RuleBase>('cost');
  const [factor, setFactor] = useState('20');
  const [rounding, setRounding] = useState<Rounding>('99s');
  const value = used.includes(price) ? price : (used[0] ?? 'asking');
  const read = typedNumber(factor);
  const times = isRefusal(read) ? Number.NaN : read;
  return (
    <Row as="fieldset" style={{ border: 0, padding: 0, margin: 0 }}>
      <legend className="visually-hidden">Price the chosen names by a rule</legend>
      <Choice
        label="Set"
        value={value}
        onChange={setPrice}
        options={used.map((name) => ({ value: name, text: PRICE_WORDS[name] }))}
      />
      <div data-short>
        <Field
          label="to"
          value={factor}
          onChange={setFactor}
          inputMode="decimal"
          problem={isRefusal(read) ? read.message : times > 0 ? null : 'More than 0.'}
        />
      </div>
      <div data-wide>
        <Choice
          label="times"
          value={base}
          onChange={setBase}
          options={RULE_BASES.map((one) => ({ value: one, text: RULE_WORDS[one] }))}
        />
      </div>
      <Choice
        label="rounded to"
        value={rounding}
        onChange={setRounding}
        options={ROUNDINGS.map((one) => ({ value: one, text: one === 'whole' ? 'whole units' : one }))}
      />
      <Button isDisabled={!(times > 0)} onPress={() => onRule(value, { base, factor: times, rounding })}>
        Price the chosen
      </Button>
      <Button isDisabled={!canUndo} onPress={onUndo}>
        Undo
      </Button>
    </Row>
  );
}
