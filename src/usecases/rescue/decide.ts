import { parseDecimal } from '@/core/money';
import { isRefusal, type Refusal, refuse } from '@/core/refusal';
import { formatInstant } from '@/core/time';
import type { NamePatch } from '@/database/changes';
import { lockTermEnds } from '@/database/names';
import { selectSettings, upsertSettings } from '@/database/settings';
import type { Done } from '../changing';
import { changing } from '../changing';
import type { Deps } from '../deps';
import { carryOut } from '../names/edit';
import { command } from '../people/command';
import { readRequest } from '../validate';
import { DecideRescue, SaleOddsForm } from './requests';

/** Remembers what the owner decided about names in danger, for the term that ends now, and how likely a sale is thought to be. */
export const decideRescue = command('decideRescue', async (deps: Deps, input: unknown): Promise<Done | Refusal> => {
  const request = await readRequest(DecideRescue, input);
  if (isRefusal(request)) return request;
  const { nameIds, verdict, chance, usualChance } = request;
  const offer = offerIn(request);
  if (isRefusal(offer)) return offer;
  const what = verdict === undefined ? 'the chance of a sale' : `“${verdict}”`;
  const summary = `Decided ${what} on ${nameIds.length === 1 ? 'one name' : `${nameIds.length} names`}`;
  return carryOut(deps, 'rescue', summary, async (tx) => {
    const ends = await lockTermEnds(tx, nameIds);
    return nameIds.map((nameId) => {
      const end = ends.get(nameId) ?? null;
      const decided: NamePatch =
        verdict === undefined
          ? {}
          : verdict === 'as computed' || end === null
            ? { rescue_verdict: null, rescue_for: null }
            : { rescue_verdict: verdict, rescue_for: formatInstant(end) };
      const likely: NamePatch = usualChance
        ? { sale_chance: null }
        : chance === undefined
          ? {}
          : { sale_chance: chance };
      return { nameId, patch: { ...decided, ...likely, ...offer } };
    });
  });
});

/** The columns of a best offer; nothing where none was spoken of. */
function offerIn({ bestOffer, currency = '', noOffer }: DecideRescue): NamePatch | Refusal {
  if (noOffer) return { best_offer_minor: null, best_offer_currency: null };
  if (bestOffer === undefined) return {};
  const offer = parseDecimal(bestOffer, currency);
  return offer === null || offer.minor < 0
    ? refuse('offer-invalid', 'Write the offer as a plain amount, like 250.00.', 'bestOffer')
    : { best_offer_minor: offer.minor, best_offer_currency: offer.currency };
}

/** Sets what is assumed of selling names. */
export const saveSaleOdds = command('saveSaleOdds', async (deps: Deps, input: unknown): Promise<true | Refusal> => {
  const odds = await readRequest(SaleOddsForm, input);
  if (isRefusal(odds)) return odds;
  await changing(deps, async (tx) => {
    const { saleOdds } = await selectSettings(tx);
    await upsertSettings(tx, { saleOdds: { ...saleOdds, chance: odds.chance, commission: odds.commission } });
  });
  return true;
});
