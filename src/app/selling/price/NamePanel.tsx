'use client';
import { memo, useMemo, useState } from 'react';
import styled from 'styled-components';
import { isRefusal } from '@/core/refusal';
import { type LadderScale, leavesOf, type PriceName, pricesOf, priceToLeave, type VenueFees } from '@/core/selling';
import { startOfDay } from '@/core/time';
import { AmountField } from '@/ui/controls/AmountField';
import { Button } from '@/ui/controls/Button';
import { Check } from '@/ui/controls/Check';
import { Choice, Field } from '@/ui/controls/Field';
import { Actions } from '@/ui/overlay/Dialog';
import { formatAmount, readTyped, typedAmount, typedMinor } from '@/ui/text/figures';
import { Ruled } from '@/ui/text/Sheet';
import { findingWords, PRICE_WORDS, returnWords } from '@/ui/text/sellingWords';
import { dayWords } from '@/ui/text/words';
import type { PricedName, Pricing } from '@/usecases/selling/pricing';
import { useLedger } from '../../frame/LedgerProvider';
import { comparablesOf, type Draft, draftTerms, judge, returnOf, type Terms, termsAt } from './drafts';
import { Ladder } from './Ladder';
import { Preview } from './Preview';

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

/** One name beside the list: its ladder, what each price leaves and why it is so, what is to be known, and its words. */
export const NamePanel = memo(function NamePanel({
  name,
  draft,
  terms,
  pricing,
  venueId,
  scale,
  onPrice: onPriceOf,
  onEdit: onEditOf,
}: {
  name: PricedName;
  draft: Draft;
  terms: Terms;
  pricing: Pricing;
  venueId: number | null;
  scale: LadderScale;
  onPrice: (nameId: number, price: PriceName, text: string) => void;
  onEdit: (nameId: number, part: Partial<Draft>) => void;
}) {
  const onPrice = (price: PriceName, text: string) => onPriceOf(name.nameId, price, text);
  const onEdit = (part: Partial<Draft>) => onEditOf(name.nameId, part);
  const { style } = useLedger();
  const { currency } = terms;
  const { fees, unitMinor } = draftTerms(draft, terms, pricing, name.nameId);
  const { rungs, findings, costMinor } = judge(name, draft, terms, pricing);
  const venue = pricing.venues.find(({ id }) => id === venueId) ?? null;
  const typed = (minor: number) => typedAmount({ minor, currency });
  const like = useMemo(() => comparablesOf(name, currency, pricing), [name, currency, pricing]);
  const money = (minor: number) => formatAmount({ minor, currency }, true);
  const unread = pricesOf(draft.kind).flatMap((price) => {
    const read = draft.prices[price].trim() === '' ? null : readTyped(draft.prices[price], currency);
    return isRefusal(read) ? [{ price, why: read.message }] : [];
  });
  const asked = typedMinor(draft.prices[draft.kind === 'auction' ? 'reserve' : 'asking'], currency);
  return (
    <Panel aria-label={`Prices of ${name.unicode}`}>
      <h2 className="name">{name.unicode}</h2>
      <Ladder
        rungs={rungs}
        scale={scale}
        currency={currency}
        unitMinor={unitMinor}
        label={`Price ladder of ${name.unicode}`}
        onPrice={(price, minor) => onPrice(price, typed(minor))}
      />
      {(findings.length > 0 || unread.length > 0) && (
        <ul aria-label="Checks">
          {unread.map(({ price, why }) => (
            <li key={price} className="caution">
              {`The ${PRICE_WORDS[price]} price: ${why}`}
            </li>
          ))}
          {findings.map((finding) => (
            <li
              key={`${finding.code} ${finding.price} ${finding.other}`}
              className={finding.stops ? 'caution' : undefined}
            >
              {findingWords(finding, currency, style)}
            </li>
          ))}
        </ul>
      )}
      <Ruled aria-label="What each price leaves">
        <thead>
          <tr>
            <th>Price</th>
            <th className="figure">leaves</th>
            <th className="figure">over cost</th>
            <th className="figure">a year</th>
          </tr>
        </thead>
        <tbody>
          {rungs
            .filter(({ kind }) => kind !== 'cost' && kind !== 'no loss')
            .map(({ kind, minor, leaves, profitMinor }) => (
              <tr key={kind}>
                <td>
                  {PRICE_WORDS[kind as PriceName]}
                  <div className="soft">{money(minor)}</div>
                </td>
                <td className="figure">{leaves === null ? 'no rate' : money(leaves.proceedsMinor)}</td>
                <td className={profitMinor !== null && profitMinor < 0 ? 'figure caution' : 'figure'}>
                  {profitMinor === null ? '–' : money(profitMinor)}
                </td>
                <td className="figure">
                  {returnWords(leaves && returnOf(name, leaves.proceedsMinor, currency, pricing)).replace(
                    ' a year',
                    '',
                  )}
                </td>
              </tr>
            ))}
        </tbody>
      </Ruled>
      <Backwards
        costMinor={costMinor}
        currency={currency}
        fees={fees}
        unitMinor={unitMinor}
        onUse={(minor) => onPrice(draft.kind === 'auction' ? 'reserve' : 'asking', typed(minor))}
      />
      <details>
        <summary>Why these prices</summary>
        <div>
          {pricesOf(draft.kind).map((price) => (
            <Field
              key={price}
              label={`Reason for the ${PRICE_WORDS[price]} price`}
              value={draft.reasons[price] ?? ''}
              onChange={(text) => onEdit({ reasons: { ...draft.reasons, [price]: text } })}
            />
          ))}
        </div>
      </details>
      <details open={like !== null}>
        <summary>
          {like
            ? `Like sales: ${money(like.lowerMinor)} · ${money(like.medianMinor)} · ${money(like.upperMinor)}`
            : 'No sale of a like name is known'}
        </summary>
        {like && (
          <Ruled aria-label="Sales of like names">
            <tbody>
              {like.sales.map((sale) => (
                <tr key={`${sale.ascii} ${sale.day}`}>
                  <td className="name">{sale.ascii}</td>
                  <td className="whole">{dayWords(startOfDay(sale.day), style)}</td>
                  <td className="soft">{sale.own ? 'your own' : sale.venue}</td>
                  <td className="figure">{formatAmount(sale.price, true)}</td>
                </tr>
              ))}
            </tbody>
          </Ruled>
        )}
      </details>
      {asked !== null && asked > 0 && (
        <details>
          <summary>The same sale elsewhere</summary>
          <Ruled aria-label="What the same sale leaves at each venue">
            <tbody>
              {pricing.venues.map(({ id, label }) => {
                const there = draftTerms(
                  { ...draft, placement: null, categories: [] },
                  termsAt(pricing, id, currency),
                  pricing,
                  name.nameId,
                ).fees;
                return (
                  <tr key={id} data-off={id === venueId}>
                    <td>{label}</td>
                    <td className="figure">
                      {there === null ? 'no rate' : money(leavesOf(asked, there).proceedsMinor)}
                    </td>
                  </tr>
                );
              })}
              <tr data-off={venueId === null}>
                <td>the office itself</td>
                <td className="figure">{money(asked)}</td>
              </tr>
            </tbody>
          </Ruled>
        </details>
      )}
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
          {venue && venue.categories.length > 0 && (
            <Choice
              label="Category"
              value={draft.categories[0] ?? null}
              placeholder="none"
              onChange={(category) => onEdit({ categories: [category, ...draft.categories.slice(1)] })}
              options={venue.categories.map((category) => ({ value: category, text: category }))}
            />
          )}
          {venue?.categories
            .filter((category) => category !== draft.categories[0] && draft.categories.length > 0)
            .map((category) => (
              <Check
                key={category}
                isSelected={draft.categories.includes(category)}
                onChange={(on) =>
                  onEdit({
                    categories: on
                      ? [...draft.categories, category]
                      : draft.categories.filter((one) => one !== category),
                  })
                }
              >
                also {category}
                {venue.categoryMinor > 0 &&
                  `, ${formatAmount({ minor: venue.categoryMinor, currency: venue.feesCurrency })} more`}
              </Check>
            ))}
          {draft.kind === 'auction' && (
            <Check isSelected={draft.reserveShown} onChange={(reserveShown) => onEdit({ reserveShown })}>
              Show the reserve
            </Check>
          )}
          <Check isSelected={draft.withSite} onChange={(withSite) => onEdit({ withSite })}>
            With its site, not the name alone
          </Check>
          <Check isSelected={draft.adult} onChange={(adult) => onEdit({ adult })}>
            For adults only (18+)
          </Check>
          {venue?.network && (
            <Check isSelected={draft.network} onChange={(network) => onEdit({ network })}>
              Show it at {venue.network} too
            </Check>
          )}
          {venue && venue.placements.length > 0 && (
            <Choice
              label="Paid placement"
              value={draft.placement ?? ''}
              onChange={(placement) => onEdit({ placement: placement || null })}
              options={[
                { value: '', text: 'none' },
                ...venue.placements.map(({ label, minor }) => ({
                  value: label,
                  text: `${label}, ${formatAmount({ minor, currency: venue.feesCurrency })}`,
                })),
              ]}
            />
          )}
        </div>
      </details>
      <details>
        <summary>As a buyer sees it</summary>
        <Preview name={name} draft={draft} currency={currency} />
      </details>
    </Panel>
  );
});

/** The price that is needed for a wanted profit. */
function Backwards({
  costMinor,
  currency,
  fees,
  unitMinor,
  onUse,
}: {
  costMinor: number | null;
  currency: string;
  fees: VenueFees | null;
  unitMinor: number;
  onUse: (minor: number) => void;
}) {
  const [wanted, setWanted] = useState('');
  const profit = typedMinor(wanted, currency);
  const needed =
    costMinor === null || fees === null || profit === null || Number.isNaN(profit)
      ? null
      : priceToLeave(costMinor + profit, fees, unitMinor);
  return (
    <Actions>
      <AmountField label="Profit wanted" currency={currency} value={wanted} onChange={setWanted} />
      {needed !== null && (
        <Button onPress={() => onUse(needed)}>needs {formatAmount({ minor: needed, currency }, true)}: use it</Button>
      )}
    </Actions>
  );
}
