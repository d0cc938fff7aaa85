import { refuseMarketplaceUrl } from '@/connectors/marketplace/httpMarketplace';
import type { MarketplaceLink, MarketplaceOutcome } from '@/connectors/marketplace/port';
import { isCurrency } from '@/core/money';
import { isRefusal, type Refusal, refuse } from '@/core/refusal';
import {
  type MarketplaceRow,
  noteMarketplace,
  selectMarketplace,
  selectMarketplaceSecret,
  selectMarketplaces,
  updateMarketplaceLink,
  upsertMarketplace,
} from '@/database/marketplaces';
import { endPause } from '@/database/parts';
import { sealPlace } from '@/database/secrets';
import { selectSettings } from '@/database/settings';
import { changing } from '../changing';
import type { Deps } from '../deps';
import { command } from '../people/command';
import { seal, unseal } from '../secrets/seal';
import { readRequest } from '../validate';
import { MarketplaceForm, MarketplaceLinkForm } from './requests';

export type { MarketplaceRow } from '@/database/marketplaces';

export function marketplaces(deps: Deps): Promise<MarketplaceRow[]> {
  return selectMarketplaces(deps.database);
}

export function marketplace(deps: Deps, id: number): Promise<MarketplaceRow | null> {
  return selectMarketplace(deps.database, id);
}

/** Adds a marketplace or changes its rules; answers its id. */
export const saveMarketplace = command(
  'saveMarketplace',
  async (deps: Deps, input: unknown): Promise<number | Refusal> => {
    const form = await readRequest(MarketplaceForm, input);
    if (isRefusal(form)) return form;
    const unknown = [...form.currencies, form.feesCurrency].find((code) => !isCurrency(code));
    if (unknown) return refuse('currency-unknown', `${unknown} is not a currency code of ISO 4217.`, 'currencies');
    const rising = form.steps.every((step, i) => i === 0 || step.fromMinor > (form.steps[i - 1]?.fromMinor ?? 0));
    if (!rising)
      return refuse('steps-not-rising', 'Write the steps of the commission from the lowest price up.', 'steps');
    const { id = null, accountId = null, csvColumns = null, notes = '', ...rest } = form;
    const saved = await changing(deps, (tx) => upsertMarketplace(tx, id, { ...rest, accountId, csvColumns, notes }));
    return (
      saved ??
      refuse('marketplace-label-taken', 'Another marketplace has this name already. Choose another name.', 'label')
    );
  },
);

/** Sets the link of a marketplace. The key is sealed at once and never shown again. */
export const saveMarketplaceLink = command(
  'saveMarketplaceLink',
  async (deps: Deps, input: unknown): Promise<true | Refusal> => {
    const form = await readRequest(MarketplaceLinkForm, input);
    if (isRefusal(form)) return form;
    if (!deps.key)
      return refuse(
        'no-key',
        'Start the program with bin/start, or set NAME_LEDGER_KEY to a long text of your own: it seals passwords.',
      );
    const { records } = await selectSettings(deps.database);
    const wrong = refuseMarketplaceUrl(form.url, records.allowedHosts);
    if (wrong) return refuse('marketplace-address', wrong, 'url');
    const link = { url: form.url, secret: await seal(deps.key, sealPlace.marketplace(form.marketplaceId), form.key) };
    await changing(deps, (tx) => updateMarketplaceLink(tx, form.marketplaceId, link));
    await endPause(deps.database, 'marketplace', form.marketplaceId);
    return true;
  },
);

export const removeMarketplaceLink = command(
  'removeMarketplaceLink',
  async (deps: Deps, marketplaceId: number): Promise<true> => {
    await changing(deps, (tx) => updateMarketplaceLink(tx, marketplaceId, null));
    return true;
  },
);

/** The link of a marketplace, ready for use; `null` for one that is kept by hand. */
export async function marketplaceLink(
  deps: Deps,
  row: Pick<MarketplaceRow, 'id' | 'linkUrl'>,
): Promise<MarketplaceLink | null> {
  const secret = row.linkUrl === null ? null : await selectMarketplaceSecret(deps.database, row.id);
  const key = secret && deps.key && (await unseal(deps.key, sealPlace.marketplace(row.id), secret));
  if (row.linkUrl === null || !key) return null;
  const { records } = await selectSettings(deps.database);
  return deps.marketplace({ url: row.linkUrl, key, allowedHosts: records.allowedHosts });
}

/** Asks the marketplace what it calls itself. */
export const testMarketplace = command(
  'testMarketplace',
  async (deps: Deps, marketplaceId: number): Promise<string | Refusal> => {
    const row = await selectMarketplace(deps.database, marketplaceId);
    const link = row && (await marketplaceLink(deps, row));
    if (!link)
      return refuse('no-marketplace-link', 'This marketplace has no link that works. Set its address and key.');
    const tested = await link.test();
    const problem = tested.kind === 'done' ? null : marketplaceProblem(tested);
    await noteMarketplace(deps.database, marketplaceId, { at: null, cursor: null, problem });
    if (problem === null) await endPause(deps.database, 'marketplace', marketplaceId);
    return tested.kind === 'done' ? tested.value : refuse('marketplace-failed', problem ?? '');
  },
);

/** What went wrong at a marketplace, as a sentence that says what to do. */
export function marketplaceProblem(outcome: Exclude<MarketplaceOutcome<unknown>, { kind: 'done' }>): string {
  return outcome.kind === 'refused'
    ? `The marketplace refused: ${outcome.reason}`
    : `The marketplace did not answer (${outcome.cause}). It is asked again by itself; if it goes on, check its address.`;
}
