import { randomUUID } from 'node:crypto';
import { accountsToTry, LOOK_EVERY_MS, overCaps } from '@/core/acquiring';
import { type Amount, formatAmount } from '@/core/money';
import { dayOf, type Instant } from '@/core/time';
import { type AccountRow, selectAccounts } from '@/database/accounts';
import { whileAlone } from '@/database/locks';
import { transaction } from '@/database/pool';
import { selectRates } from '@/database/rates';
import { selectNewestRecords, storeRecords, touchRecords } from '@/database/records';
import { insertRegistrations, type RegistrationRow, selectRegistration } from '@/database/registrations';
import {
  insertTry,
  moveRelease,
  type ReleaseOrderRow,
  selectDueReleases,
  selectLastTries,
} from '@/database/releaseOrders';
import { selectSettings } from '@/database/settings';
import type { Deps } from '../deps';
import { linkOf } from '../links/links';
import { takeStep } from '../orders/step';
import { askRegistry } from '../records/ask';
import { RateLimiter } from '../records/rateLimiter';
import { REGISTERING } from './registering';

/** Kept from one pass to the next, so that no registry is asked faster. */
const registries = new RateLimiter();

/**
 * Tries every order at release whose earliest instant has come: what is in doubt is settled first; then the accounts in order, each
 * registrar once a minute at most, for no more than the caps. Safe to call again after a crash at any moment. Answers how many were tried.
 */
export function carryOnReleases(deps: Deps): Promise<number | null> {
  return whileAlone(deps.database, 'releases', async () => {
    registries.beginPass();
    const due = await selectDueReleases(deps.database, deps.clock());
    if (due.length === 0) return 0;
    const accounts = new Map((await selectAccounts(deps.database)).map((account) => [account.id, account]));
    let tried = 0;
    for (const order of due) tried += await carryOn(deps, order, accounts);
    return tried;
  });
}

async function carryOn(deps: Deps, order: ReleaseOrderRow, accounts: ReadonlyMap<number, AccountRow>): Promise<number> {
  const now = deps.clock();
  const move = (state: ReleaseOrderRow['state'], problem: string | null, registrationId?: number | null) =>
    moveRelease(
      deps.database,
      order.id,
      { state, problem, ...(registrationId === undefined ? {} : { registrationId }) },
      now,
    );
  if (order.registrationId !== null) {
    const settled = await settle(deps, order.registrationId);
    if (settled === null) return 0;
    if (settled.state === 'done') {
      await move('got', null);
      return 0;
    }
    await move('trying', settled.problem, null);
  }
  if (now >= order.untilAt) {
    await move('over', 'It was not released in time, or nobody could register it.');
    return 0;
  }
  let tried = 0;
  for (const accountId of accountsToTry(order.accountIds, await selectLastTries(deps.database), now)) {
    const account = accounts.get(accountId);
    if (!account) continue;
    tried += 1;
    const went = await tryAt(deps, order, account, now);
    await insertTry(deps.database, { orderId: order.id, accountId, at: now, outcome: went.outcome });
    if (went.kind === 'got') {
      await move('got', null, went.registrationId);
      return tried;
    }
    if (went.kind === 'doubt') {
      // Settled before the next account is tried.
      await move('trying', went.outcome, went.registrationId);
      return tried;
    }
    await move('trying', went.outcome, null);
    // Not released: no other account could register it either.
    if (went.kind === 'not free') break;
  }
  if (await isSomebodyElses(deps, order, now)) await move('lost', 'Somebody else has registered it. Nothing was paid.');
  return tried;
}

/** What came of the registration that an order waits for; `null` while that is open. */
async function settle(deps: Deps, registrationId: number): Promise<RegistrationRow | null> {
  const before = await selectRegistration(deps.database, registrationId);
  if (!before) return null;
  const link = await linkOf(deps, before.accountId);
  if (link && (before.state === 'waiting' || before.state === 'sending' || before.state === 'pending'))
    await takeStep(deps, link, REGISTERING, [before]);
  const after = await selectRegistration(deps.database, registrationId);
  return after && (after.state === 'done' || after.state === 'refused') ? after : null;
}

type Went =
  | { readonly kind: 'not free' | 'not here'; readonly outcome: string }
  | { readonly kind: 'got' | 'doubt'; readonly outcome: string; readonly registrationId: number };

/** One try at one account: asked for first, with its price; within the caps it is registered by the engine of all orders. */
async function tryAt(deps: Deps, order: ReleaseOrderRow, account: AccountRow, now: Instant): Promise<Went> {
  const link = await linkOf(deps, account.id);
  if (!link) return { kind: 'not here', outcome: 'no link that works' };
  const asked = await link.check([order.ascii], order.years, account.currency);
  if (asked.kind !== 'done')
    return { kind: 'not here', outcome: asked.kind === 'refused' ? `refused: ${asked.reason}` : 'no answer' };
  const [told] = asked.value;
  if (!told) return { kind: 'not here', outcome: 'the registrar does not speak of it' };
  if (!told.avail) return { kind: 'not free', outcome: `not released yet${told.reason ? `: ${told.reason}` : ''}` };
  const { currency, mostFirstMinor, mostRenewalMinor } = order;
  const caps = { mostFirst: { minor: mostFirstMinor, currency }, mostRenewal: { minor: mostRenewalMinor, currency } };
  const beyond = overCaps(told, caps, await selectRates(deps.database), dayOf(now));
  if (beyond !== null || told.register === null)
    return { kind: 'not here', outcome: `${beyond ?? 'no price'}${askedWords(told)}` };
  const registration = await begin(deps, order, account, told.register, told.premium ? told.renew : null, now);
  if (!registration) return { kind: 'not here', outcome: 'it is being registered already' };
  await takeStep(deps, link, REGISTERING, [registration]);
  const after = await selectRegistration(deps.database, registration.id);
  if (after?.state === 'done')
    return { kind: 'got', outcome: `registered for ${formatAmount(told.register)}`, registrationId: registration.id };
  if (after?.state === 'refused') return { kind: 'not here', outcome: after.problem ?? 'refused' };
  return {
    kind: 'doubt',
    outcome: after?.problem ?? 'no answer: it is looked up first',
    registrationId: registration.id,
  };
}

const askedWords = ({ register, renew }: { readonly register: Amount | null; readonly renew: Amount | null }) =>
  register === null ? '' : `: ${formatAmount(register)}${renew === null ? '' : `, then ${formatAmount(renew)}`}`;

async function begin(
  deps: Deps,
  order: ReleaseOrderRow,
  account: AccountRow,
  price: Amount,
  ownRenewal: Amount | null,
  now: Instant,
): Promise<RegistrationRow | null> {
  const { ascii, unicode, ending, years, note } = order;
  const orderId = `NL-${randomUUID()}`;
  const draft = {
    ascii,
    unicode,
    ending,
    typed: unicode,
    purpose: '',
    note,
    accountId: account.id,
    years,
    autoRenew: true,
    privacy: false,
    nameServers: [],
    holderMail: account.holderMail ?? null,
    byHand: false,
    orderId,
    quotedMinor: price.minor,
    capMinor: price.minor,
    currency: price.currency,
    ownRenewalMinor: ownRenewal?.minor ?? null,
    payBy: null,
  };
  // The registration and the order that waits for it are written together: after a crash it is settled first.
  return transaction(deps.database, async (tx) => {
    const [put] = await insertRegistrations(tx, randomUUID(), null, [draft], now);
    if (put === undefined) return null;
    const row = await selectRegistration(tx, orderId);
    if (row) await moveRelease(tx, order.id, { state: 'trying', problem: null, registrationId: row.id }, now);
    return row;
  });
}

/** Whether a record shows that somebody else has registered it since it was ordered. Looked at now and then. */
async function isSomebodyElses(deps: Deps, { ascii, madeAt }: ReleaseOrderRow, now: Instant): Promise<boolean> {
  const known = await selectNewestRecords(deps.database, [ascii]);
  const registry = known.find(({ source }) => source !== 'registrar');
  if (!registry || now - registry.lastAt >= LOOK_EVERY_MS) {
    const { records } = await selectSettings(deps.database);
    const asked = await askRegistry(records, registries, ascii, known, false);
    if (asked.kind !== 'seen') return false;
    await storeRecords(deps.database, asked.drafts, now);
    await touchRecords(deps.database, asked.unchanged, now);
  }
  const newest = (await selectNewestRecords(deps.database, [ascii])).find(
    ({ source }) => source !== 'registrar',
  )?.record;
  return newest?.found === true && newest.registered !== null && newest.registered >= madeAt;
}
