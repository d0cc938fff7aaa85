'use client';
import { memo } from 'react';
import styled from 'styled-components';
import { isRefusal } from '@/core/refusal';
import {
  type Draft,
  draftTerms,
  PRICE_NAMES,
  type PricedName,
  type PriceName,
  priceDraft,
  pricesOf,
} from '@/core/selling';
import { Field } from '@/ui/controls/Field';
import { readTyped } from '@/ui/text/figures';
import { findingWords, PRICE_WORDS } from '@/ui/text/sellingWords';
import { useLedger } from '../../frame/LedgerProvider';
import { Backwards } from './Backwards';
import { Ladder } from './Ladder';
import { LikeSales } from './LikeSales';
import { Preview } from './Preview';
import { usePricing } from './PricingContext';
import { ProceedsTable } from './ProceedsTable';
import { SaleElsewhere } from './SaleElsewhere';
import { WordsAndTerms } from './WordsAndTerms';

const Panel = styled.aside`
  display: flex;
  flex-direction: column;
  gap: 14px;
  min-width: 0;
  padding: 16px 20px 40px 18px;
  border-left: 1px solid var(--rule);
  background: var(--sheet);
  overflow: auto;
  & > * { flex: none; }
  & h2.name { font-size: 1.1rem; }
  & h3 { font-size: 0.95rem; }
  & ul { display: flex; flex-direction: column; gap: 5px; }
  & details > :not(summary) { margin-top: 8px; }
`;

/** One name beside the list: its ladder, what each price brings and why it is so, what is to be known, and its words. */
export const NamePanel = memo(function NamePanel({ name, draft }: { name: PricedName; draft: Draft }) {
  const { pricing, at, scale, onPrice, onEdit } = usePricing();
  const { currency } = at;
  const { fees, unitMinor } = draftTerms(draft, at, pricing, name.nameId);
  const { rungs, costMinor } = priceDraft(name, draft, at, pricing);
  const leading: PriceName = draft.kind === 'auction' ? 'reserve' : 'asking';
  const asked = draft.prices[leading];
  return (
    <Panel aria-label={`Prices of ${name.unicode}`}>
      <h2 className="name">{name.unicode}</h2>
      <Ladder
        rungs={rungs}
        scale={scale}
        currency={currency}
        unitMinor={unitMinor}
        label={`Price ladder of ${name.unicode}`}
        onPrice={(price, minor) => onPrice(name.nameId, price, minor)}
      />
      <Checks name={name} draft={draft} />
      <ProceedsTable name={name} rungs={rungs} />
      <Backwards
        costMinor={costMinor}
        currency={currency}
        fees={fees}
        unitMinor={unitMinor}
        onUse={(minor) => onPrice(name.nameId, leading, minor)}
      />
      <details>
        <summary>Why these prices</summary>
        <div>
          {pricesOf(draft.kind).map((price) => (
            <Field
              key={price}
              label={`Reason for the ${PRICE_WORDS[price]} price`}
              value={draft.reasons[price] ?? ''}
              onChange={(text) => onEdit(name.nameId, { reasons: { ...draft.reasons, [price]: text } })}
            />
          ))}
        </div>
      </details>
      <LikeSales name={name} askedMinor={asked} />
      {asked !== null && asked > 0 && <SaleElsewhere name={name} draft={draft} minor={asked} />}
      <WordsAndTerms draft={draft} onEdit={(part) => onEdit(name.nameId, part)} />
      <details>
        <summary>As a buyer sees it</summary>
        <Preview name={name} draft={draft} currency={currency} />
      </details>
    </Panel>
  );
});

/** What is wrong with the draft, or worth knowing. A price that was not read says why. */
function Checks({ name, draft }: { name: PricedName; draft: Draft }) {
  const { pricing, at } = usePricing();
  const { style } = useLedger();
  const { findings } = priceDraft(name, draft, at, pricing);
  if (findings.length === 0) return null;
  const whyUnread = (price: PriceName) => {
    const read = readTyped(draft.unread[price] ?? '', at.currency);
    return `The ${PRICE_WORDS[price]} price: ${isRefusal(read) ? read.message : 'write it again.'}`;
  };
  return (
    <ul aria-label="Checks">
      {PRICE_NAMES.filter((price) => draft.unread[price] !== undefined).map((price) => (
        <li key={price} className="caution">
          {whyUnread(price)}
        </li>
      ))}
      {findings
        .filter(({ code }) => code !== 'price not read')
        .map((finding) => (
          <li
            key={`${finding.code} ${finding.price} ${finding.other}`}
            className={finding.stops ? 'caution' : undefined}
          >
            {findingWords(finding, at.currency, style)}
          </li>
        ))}
    </ul>
  );
}
