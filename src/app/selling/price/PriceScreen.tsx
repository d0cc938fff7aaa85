'use client';
import { useRouter } from 'next/navigation';
import { useCallback, useDeferredValue, useEffect, useMemo, useRef, useState } from 'react';
import styled from 'styled-components';
import { wholeUnit } from '@/core/money';
import { isRefusal } from '@/core/refusal';
import {
  AUCTION_DAYS,
  LISTING_KINDS,
  type ListingKind,
  PRICE_NAMES,
  type PriceName,
  pricesOf,
  ROUNDINGS,
  type Rounding,
  RULE_BASES,
  type RuleBase,
  scaleOf,
} from '@/core/selling';
import { Button } from '@/ui/controls/Button';
import { Choice, Field } from '@/ui/controls/Field';
import { Actions } from '@/ui/overlay/Dialog';
import { report } from '@/ui/overlay/Toasts';
import { typedMinor, typedNumber } from '@/ui/text/figures';
import { PRICE_WORDS } from '@/ui/text/sellingWords';
import { namesWords } from '@/ui/text/words';
import type { Pricing } from '@/usecases/selling/pricing';
import { useTitle } from '../../frame/Frame';
import { useLedger } from '../../frame/LedgerProvider';
import { saveListingsAction } from '../actions';
import { applyRule, type Draft, type Drafts, firstDrafts, judge, requestOf, termsAt } from './drafts';
import { NamePanel } from './NamePanel';
import { PriceRows } from './PriceRows';

const Layout = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr) 334px;
  flex: 1;
  min-height: 0;
  @media (max-width: 1180px) { grid-template-columns: minmax(0, 1fr); }
`;

const Work = styled.div`
  display: flex;
  flex-direction: column;
  gap: 12px;
  min-width: 0;
  padding: 16px 14px 24px 26px;
`;

const Row = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 8px 10px;
  align-items: end;
  & > * { flex: 0 1 128px; }
  & > button { flex: none; }
  & > [data-short='true'] { flex-basis: 70px; }
  & > [data-wide='true'] { flex-basis: 196px; }
`;

const RULE_WORDS: Readonly<Record<RuleBase, string>> = {
  cost: 'what it has cost',
  comparable: 'the median of like sales',
  asking: 'its asking price',
};
const MOST_UNDO = 50;
/** Costs that the scale looks at. */
const MOST_COSTS = 50;
const least = (values: readonly number[]) => values.reduce((a, b) => Math.min(a, b), Number.POSITIVE_INFINITY);

/** Many names priced beside each other, each with its ladder, and listed. */
export function PriceScreen({ pricing, venueId: first }: { pricing: Pricing; venueId: number | null }) {
  const router = useRouter();
  const { homeCurrency, reload } = useLedger();
  const { venues, names, listings } = pricing;
  const [venueId, setVenueId] = useState<number | null>(
    () => first ?? listings[0]?.venueId ?? venues.find(({ linkUrl, payoutSet }) => linkUrl && payoutSet)?.id ?? null,
  );
  const [currency, setCurrency] = useState(() => listings[0]?.currency ?? homeCurrency);
  const [{ drafts, past }, setWork] = useState<{ readonly drafts: Drafts; readonly past: readonly Drafts[] }>(() => ({
    drafts: firstDrafts(pricing, venueId, currency),
    past: [],
  }));
  const [current, setCurrent] = useState(names[0]?.nameId ?? 0);
  const [chosen, setChosen] = useState<ReadonlySet<number>>(() => new Set(names.map(({ nameId }) => nameId)));
  const [busy, setBusy] = useState(false);
  useTitle('Selling', `price and list ${namesWords(names.length)}`);

  const terms = useMemo(() => termsAt(pricing, venueId, currency), [pricing, venueId, currency]);
  const change = useCallback(
    (next: (now: Drafts) => Drafts) =>
      setWork((now) => ({ drafts: next(now.drafts), past: [...now.past.slice(-MOST_UNDO), now.drafts] })),
    [],
  );
  const edit = useCallback(
    (nameIds: readonly number[], part: (draft: Draft) => Partial<Draft>) =>
      change((now) => {
        const next = new Map(now);
        for (const nameId of nameIds) {
          const draft = now.get(nameId);
          if (draft) next.set(nameId, { ...draft, ...part(draft) });
        }
        return next;
      }),
    [change],
  );
  const setPrice = useCallback(
    (nameId: number, price: PriceName, text: string) =>
      edit([nameId], (draft) => ({ prices: { ...draft.prices, [price]: text } })),
    [edit],
  );
  const editOne = useCallback((nameId: number, part: Partial<Draft>) => edit([nameId], () => part), [edit]);
  const undo = useCallback(
    () => setWork((now) => ({ drafts: now.past.at(-1) ?? now.drafts, past: now.past.slice(0, -1) })),
    [],
  );
  const choose = useCallback(
    (nameId: number | 'all', isChosen: boolean) =>
      setChosen((now) => {
        if (nameId === 'all') return new Set(isChosen ? names.map((name) => name.nameId) : []);
        const next = new Set(now);
        if (isChosen) next.add(nameId);
        else next.delete(nameId);
        return next;
      }),
    [names],
  );
  // The scale stays while prices are moved on it, and follows when they leave it by a factor of two.
  const [low, high] = useMemo(() => {
    const minors = [...drafts.values()].flatMap(({ prices }) =>
      PRICE_NAMES.flatMap((name) => typedMinor(prices[name], currency) ?? []).filter((minor) => minor > 0),
    );
    const band = (minor: number) => 2 ** Math.round(Math.log2(Math.max(1, minor)));
    return minors.length === 0 ? [0, 0] : [band(least(minors)), band(-least(minors.map((minor) => -minor)))];
  }, [drafts, currency]);
  const unitMinor = wholeUnit(currency);
  const scale = useMemo(() => {
    const costs = names.slice(0, MOST_COSTS).flatMap((name) => name.spent.map(({ minor }) => minor));
    return scaleOf([...costs, low, high], unitMinor);
  }, [names, low, high, unitMinor]);

  const mend = useMemo(
    () =>
      names.filter((name) => {
        const draft = drafts.get(name.nameId);
        return (
          chosen.has(name.nameId) && draft && judge(name, draft, terms, pricing).findings.some(({ stops }) => stops)
        );
      }).length,
    [names, drafts, chosen, terms, pricing],
  );

  const save = async (send: boolean) => {
    setBusy(true);
    const wanted = new Map([...drafts].filter(([nameId]) => chosen.has(nameId)));
    const answer = await saveListingsAction(requestOf(wanted, venueId, currency, send));
    setBusy(false);
    if (isRefusal(answer)) {
      report({ text: answer.message, problem: true });
      return;
    }
    await reload();
    const kept = answer.stopped.length;
    report({
      text: `${send ? `${namesWords(answer.sent)} listed.` : `${namesWords(answer.listingIds.length)} kept as drafts.`}${kept > 0 ? ` ${namesWords(kept)} kept as drafts: something is to be mended.` : ''}`,
      problem: kept > 0 && send,
    });
    const [only] = names;
    router.push(names.length === 1 && only ? `/selling/names/${encodeURIComponent(only.ascii)}` : '/selling/listings');
  };

  const venue = venues.find(({ id }) => id === venueId) ?? null;
  const currencies = useMemo(
    () => (venue && venue.currencies.length > 0 ? venue.currencies : [homeCurrency, 'USD', 'EUR', 'GBP']),
    [venue, homeCurrency],
  );
  const about = names.find(({ nameId }) => nameId === current);
  // What stands beside the list may follow a moment later.
  const draft = useDeferredValue(drafts).get(current);
  const ids = useMemo(() => [...chosen], [chosen]);
  const kindsKey = [...new Set(ids.flatMap((nameId) => drafts.get(nameId)?.kind ?? []))].join();
  const days = String(
    ids.map((nameId) => drafts.get(nameId)).find((one) => one?.kind === 'auction')?.auctionDays ?? AUCTION_DAYS.usual,
  );
  const latest = useRef(drafts);
  useEffect(() => {
    latest.current = drafts;
  }, [drafts]);
  const canUndo = past[0] !== undefined;
  // Not drawn anew while prices are typed.
  const controls = useMemo(() => {
    const kinds = kindsKey.split(',') as ListingKind[];
    return (
      <>
        <Row>
          <Choice
            label="Where"
            value={String(venueId ?? '')}
            onChange={(id) => setVenueId(id === '' ? null : Number(id))}
            options={[
              { value: '', text: 'the office itself' },
              ...venues.map(({ id, label }) => ({ value: String(id), text: label })),
            ]}
          />
          <Choice
            label="Currency"
            value={currency}
            onChange={setCurrency}
            options={[...new Set([...currencies, currency])].map((code) => ({ value: code, text: code }))}
          />
          <Choice
            label="Offer the chosen as"
            value={kinds.length === 1 ? (kinds[0] as ListingKind) : null}
            placeholder="different"
            onChange={(kind) => edit(ids, () => ({ kind }))}
            options={LISTING_KINDS.map((kind) => ({ value: kind, text: kind }))}
          />
          {kinds.includes('auction') && (
            <Choice
              label="Auction runs"
              value={days}
              onChange={(days) => edit(ids, () => ({ auctionDays: Number(days) }))}
              options={(venue && venue.auctionDays.length > 0 ? venue.auctionDays : [1, 3, 5, 7, 10, 14, 21, 30]).map(
                (days) => ({ value: String(days), text: days === 1 ? 'one day' : `${days} days` }),
              )}
            />
          )}
        </Row>
        <RulePart
          kinds={kinds}
          onRule={(price, rule) => {
            const { drafts: next, set } = applyRule(latest.current, ids, price, rule, currency, pricing);
            change(() => next);
            report({
              text: `${PRICE_WORDS[price]} set for ${namesWords(set)}.${set < ids.length ? ` ${namesWords(ids.length - set)} kept theirs: the base is not known.` : ''}`,
            });
          }}
          canUndo={canUndo}
          onUndo={undo}
        />
      </>
    );
  }, [kindsKey, days, ids, venueId, venue, venues, currency, currencies, canUndo, undo, edit, change, pricing]);
  return (
    <Layout>
      <Work>
        {controls}
        <PriceRows
          pricing={pricing}
          drafts={drafts}
          terms={terms}
          scale={scale}
          current={current}
          chosen={chosen}
          onCurrent={setCurrent}
          onChoose={choose}
          onPrice={setPrice}
        />
        <Actions>
          <Button data-kind="primary" isDisabled={busy || ids.length === 0} onPress={() => void save(true)}>
            {busy ? 'Listing…' : `List ${namesWords(ids.length)}${venue ? ` at ${venue.label}` : ''}`}
          </Button>
          <Button isDisabled={busy || ids.length === 0} onPress={() => void save(false)}>
            Keep as drafts
          </Button>
          <span className={mend > 0 ? 'caution' : 'soft'} role="status">
            {mend > 0 ? `${namesWords(mend)} to mend first: they are kept as drafts.` : 'Nothing stands in the way.'}
          </span>
        </Actions>
      </Work>
      {about && draft && (
        <NamePanel
          key={about.nameId}
          name={about}
          draft={draft}
          terms={terms}
          pricing={pricing}
          venueId={venueId}
          scale={scale}
          onPrice={setPrice}
          onEdit={editOne}
        />
      )}
    </Layout>
  );
}

function RulePart({
  kinds,
  onRule,
  canUndo,
  onUndo,
}: {
  kinds: readonly ListingKind[];
  onRule: (price: PriceName, rule: { base: RuleBase; factor: number; rounding: Rounding }) => void;
  canUndo: boolean;
  onUndo: () => void;
}) {
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
        <Field label="to" value={factor} onChange={setFactor} inputMode="decimal" />
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
