import { isCurrency } from '@/core/money';
import { isRefusal, type Refusal, refuse } from '@/core/refusal';
import { askedPrice, type Finding, FRESH_TERMS, NO_PRICES, type PricedName, termsOf } from '@/core/selling';
import type { Instant } from '@/core/time';
import { selectAuctions } from '@/database/auctions';
import { patchNames } from '@/database/changes';
import { type ListingDraft, type ListingRow, selectListings, upsertListings } from '@/database/listings';
import { type MarketplaceRow, selectMarketplace } from '@/database/marketplaces';
import { selectRates } from '@/database/rates';
import { changing, recordIn } from '../changing';
import type { Deps } from '../deps';
import { command } from '../people/command';
import { readRequest, saidIn } from '../validate';
import { pricedNames } from './pricing';
import { type ListingForm, SaveListings } from './requests';
import { findingsOf, isDraft, type Listed, sendWithin } from './sendListings';

export type { ListingRow } from '@/database/listings';

/**
 * Lists one to five hundred names at a marketplace, or by the office itself. Every listing is kept; those with which nothing is wrong
 * are sent when that is asked. The asking price stands in the ledger from then on.
 */
export const saveListings = command('saveListings', async (deps: Deps, input: unknown): Promise<Listed | Refusal> => {
  const request = await readRequest(SaveListings, input);
  if (isRefusal(request)) return request;
  const { marketplaceId = null, send } = request;
  const [marketplace, rates, names, listings] = await Promise.all([
    marketplaceId === null ? null : selectMarketplace(deps.database, marketplaceId),
    selectRates(deps.database),
    pricedNames(
      deps,
      request.listings.map(({ nameId }) => nameId),
    ),
    selectListings(
      deps.database,
      request.listings.map(({ nameId }) => nameId),
    ),
  ]);
  if (marketplaceId !== null && !marketplace)
    return refuse('marketplace-unknown', 'That marketplace is no longer there. Choose another.', 'marketplaceId');
  const running = (
    await selectAuctions(
      deps.database,
      names.map(({ nameId }) => nameId),
    )
  ).find(({ outcome, marketplaceId: where }) => outcome === null && where === marketplaceId);
  if (running)
    return refuse(
      'auction-runs',
      `An auction of ${running.unicode} runs there: only its reserve can still be lowered, on the auction’s page.`,
    );
  const known = new Map(names.map((name) => [name.nameId, name]));
  const drafts: CheckedDraft[] = [];
  const at = deps.clock();
  for (const form of request.listings) {
    const name = known.get(form.nameId);
    if (!name)
      return refuse('name-not-in-ledger', 'One of these names is no longer in the ledger. Load the page again.');
    const draft = draftOf(form, marketplaceId);
    if (isRefusal(draft)) return draft;
    const current = listings.find((one) => one.nameId === name.nameId && one.marketplaceId === marketplaceId) ?? null;
    const findings = findingsOf({ ...draft, sentAt: current?.sentAt ?? null }, name, marketplace, rates, at);
    drafts.push({ draft, name, current, findings });
  }
  const stopped = drafts.filter(({ findings }) => findings.some(({ stops }) => stops));
  const fine = drafts.filter((one) => !stopped.includes(one));
  // What stands at its marketplace stays as it stands until the change is right: nothing wrong goes out.
  const kept = drafts.filter((one) => fine.includes(one) || !one.current || isDraft(one.current));
  const listingIds = await writeListings(deps, { kept, fine: send ? fine : [], marketplace, at });
  return {
    listingIds,
    sent: send ? fine.length : 0,
    stopped: stopped.map(({ name, findings }) => ({ ascii: name.ascii, findings })),
  };
});

/** A listing that is to be saved, with what is wrong with it. */
interface CheckedDraft {
  readonly draft: ListingDraft;
  readonly name: PricedName;
  readonly current: ListingRow | null;
  readonly findings: readonly Finding[];
}

interface Writing {
  readonly kept: readonly CheckedDraft[];
  /** Those that are sent. */
  readonly fine: readonly CheckedDraft[];
  readonly marketplace: MarketplaceRow | null;
  readonly at: Instant;
}

/** Keeps listings with the asking prices they set, and sends those that are fine. Answers their ids. */
function writeListings(deps: Deps, { kept, fine, marketplace, at }: Writing): Promise<number[]> {
  return changing(deps, async (tx) => {
    const written = await upsertListings(
      tx,
      kept.map(({ draft }) => draft),
      at,
    );
    const batchId = await recordIn(
      tx,
      deps,
      'listing',
      `Priced ${kept.length === 1 ? 'one name' : `${kept.length} names`} for sale`,
    );
    await patchNames(
      tx,
      batchId,
      kept.map(({ draft }) => {
        const asked = askedPrice(draft);
        return {
          nameId: draft.nameId,
          patch: {
            purpose: 'for sale',
            ...(asked === null ? {} : { asking_minor: asked, asking_currency: draft.currency }),
          },
        };
      }),
    );
    const fineIds = new Set(fine.map(({ draft }) => draft.nameId));
    const ids = written.filter(({ nameId }) => fineIds.has(nameId)).map(({ id }) => id);
    await sendWithin(tx, deps, ids, marketplace);
    return written.map(({ id }) => id);
  });
}

/** What the owner wrote, as the terms of a listing: what was left out is not set. */
function draftOf({ nameId, reasons, ...form }: ListingForm, marketplaceId: number | null): ListingDraft | Refusal {
  if (!isCurrency(form.currency))
    return refuse('currency-unknown', `${form.currency} is not a currency code of ISO 4217.`, 'currency');
  return {
    ...termsOf({
      ...FRESH_TERMS,
      ...saidIn(form),
      currency: form.currency,
      prices: { ...NO_PRICES, ...saidIn(form.prices) },
    }),
    nameId,
    marketplaceId,
    reasons: reasons ? saidIn(reasons) : {},
  };
}
