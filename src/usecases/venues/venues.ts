import { refuseVenueUrl } from '@/connectors/venue/httpVenue';
import type { VenueLink, VenueOutcome } from '@/connectors/venue/port';
import { isCurrency, type Rate } from '@/core/money';
import { isRefusal, type Refusal, refuse } from '@/core/refusal';
import { dayOf, parseDay } from '@/core/time';
import { endPause } from '@/database/parts';
import { sealPlace } from '@/database/secrets';
import { selectSettings } from '@/database/settings';
import {
  noteVenue,
  selectRates,
  selectVenue,
  selectVenueSecret,
  selectVenues,
  updateVenueLink,
  upsertRate,
  upsertVenue,
  type VenueRow,
} from '@/database/venues';
import { changing } from '../changing';
import type { Deps } from '../deps';
import { seal, unseal } from '../secrets/seal';
import { readRequest } from '../validate';
import { RateForm, VenueForm, VenueLinkForm } from './requests';

export type { VenueRow } from '@/database/venues';

export function venues(deps: Deps): Promise<VenueRow[]> {
  return selectVenues(deps.database);
}

export function venue(deps: Deps, id: number): Promise<VenueRow | null> {
  return selectVenue(deps.database, id);
}

export function rates(deps: Deps): Promise<Rate[]> {
  return selectRates(deps.database);
}

/** Adds a venue or changes its rules; answers its id. */
export async function saveVenue(deps: Deps, input: unknown): Promise<number | Refusal> {
  const form = await readRequest(VenueForm, input);
  if (isRefusal(form)) return form;
  const unknown = [...form.currencies, form.feesCurrency].find((code) => !isCurrency(code));
  if (unknown) return refuse('currency-unknown', `${unknown} is not a currency code of ISO 4217.`, 'currencies');
  const rising = form.steps.every((step, i) => i === 0 || step.fromMinor > (form.steps[i - 1]?.fromMinor ?? 0));
  if (!rising)
    return refuse('steps-not-rising', 'Write the steps of the commission from the lowest price up.', 'steps');
  const { id = null, network = null, accountId = null, csvColumns = null, notes = '', ...rest } = form;
  const saved = await changing(deps, (tx) => upsertVenue(tx, id, { ...rest, network, accountId, csvColumns, notes }));
  return saved ?? refuse('venue-label-taken', 'Another venue has this name already. Choose another name.', 'label');
}

/** Sets the link of a venue. The key is sealed at once and never shown again. */
export async function saveVenueLink(deps: Deps, input: unknown): Promise<true | Refusal> {
  const form = await readRequest(VenueLinkForm, input);
  if (isRefusal(form)) return form;
  if (!deps.key)
    return refuse(
      'no-key',
      'Start the program with bin/start, or set NAME_LEDGER_KEY to a long text of your own: it seals passwords.',
    );
  const { records } = await selectSettings(deps.database);
  const wrong = refuseVenueUrl(form.url, records.allowedHosts);
  if (wrong) return refuse('venue-address', wrong, 'url');
  const link = { url: form.url, secret: await seal(deps.key, sealPlace.venue(form.venueId), form.key) };
  await changing(deps, (tx) => updateVenueLink(tx, form.venueId, link));
  await endPause(deps.database, 'venue', form.venueId);
  return true;
}

export async function removeVenueLink(deps: Deps, venueId: number): Promise<void> {
  await changing(deps, (tx) => updateVenueLink(tx, venueId, null));
}

/** The link of a venue, ready for use; `null` for one that is kept by hand. */
export async function venueLink(deps: Deps, row: Pick<VenueRow, 'id' | 'linkUrl'>): Promise<VenueLink | null> {
  const secret = row.linkUrl === null ? null : await selectVenueSecret(deps.database, row.id);
  const key = secret && deps.key && (await unseal(deps.key, sealPlace.venue(row.id), secret));
  if (row.linkUrl === null || !key) return null;
  const { records } = await selectSettings(deps.database);
  return deps.venue({ url: row.linkUrl, key, allowedHosts: records.allowedHosts });
}

/** Asks the venue what it calls itself. */
export async function testVenue(deps: Deps, venueId: number): Promise<string | Refusal> {
  const row = await selectVenue(deps.database, venueId);
  const link = row && (await venueLink(deps, row));
  if (!link) return refuse('no-venue-link', 'This venue has no link that works. Set its address and key.');
  const tested = await link.test();
  const problem = tested.kind === 'done' ? null : venueProblem(tested);
  await noteVenue(deps.database, venueId, { at: null, cursor: null, problem });
  if (problem === null) await endPause(deps.database, 'venue', venueId);
  return tested.kind === 'done' ? tested.value : refuse('venue-failed', problem ?? '');
}

/** What went wrong at a venue, as a sentence that says what to do. */
export function venueProblem(outcome: Exclude<VenueOutcome<unknown>, { kind: 'done' }>): string {
  return outcome.kind === 'refused'
    ? `The venue refused: ${outcome.reason}`
    : `The venue did not answer (${outcome.cause}). It is asked again by itself; if it goes on, check its address.`;
}

export async function saveRate(deps: Deps, input: unknown): Promise<true | Refusal> {
  const form = await readRequest(RateForm, input);
  if (isRefusal(form)) return form;
  const from = parseDay(form.from);
  if (!from || from > dayOf(deps.clock()))
    return refuse('date-out-of-range', 'Write the day from which the rate held, like 2026-11-01.', 'from');
  const unknown = [form.currency, form.into].find((code) => !isCurrency(code));
  if (unknown || form.currency === form.into)
    return refuse('currency-unknown', 'Write two different currency codes of ISO 4217.', 'currency');
  await upsertRate(deps.database, { from, currency: form.currency, into: form.into, factor: form.factor });
  return true;
}
