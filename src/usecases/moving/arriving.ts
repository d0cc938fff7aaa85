import type { HeldName, NameSettings } from '@/connectors/registrar/port';
import { autoAsBefore } from '@/core/moving';
import { isRefusal } from '@/core/refusal';
import { addDays, addYears, formatInstant, type Instant } from '@/core/time';
import type { NamePatch } from '@/database/changes';
import { type SeenBefore, selectZones, type TransferRow } from '@/database/transfers';
import { seenZone } from '../records/records';
import { isoOf } from './preparing';
import { entryOf, type MoveStep, setWithoutCode, stays, unlessSet, type Went } from './step';
import { differenceWords, siteOf, siteWords, zoneDifference } from './zones';

/**
 * The name is at its new account: the ledger has it there from now on, with the end as the new registrar tells it. Where that cannot be
 * asked, the end is worked out from the old one, and says so.
 */
export function arrive(
  transfer: TransferRow,
  held: HeldName | null,
  at: Instant | null = null,
  transferYears = 1,
): Went {
  const names: NamePatch = {
    ...(transfer.toId !== null && { account_id: transfer.toId }),
    observed: null,
    observed_at: null,
    requested: null,
    requested_at: null,
    requested_lock: null,
    requested_privacy: null,
    grace_paid: null,
    switch_pending_since: null,
    ...(held ? heldPatch(held) : assumedPatch(transfer, at, transferYears)),
  };
  const receipt = held?.receipt?.clTRID === transfer.orderId ? held?.receipt : null;
  const booked = transfer.chargedMinor === null && receipt?.amount ? receipt : null;
  return {
    kind: 'on',
    to: 'arrived',
    patch: { acts_by: null, ...(booked?.amount && { charged_minor: booked.amount.minor, receipt: booked.svTRID }) },
    ledger: {
      names,
      evidence: held ? 'the new registrar’s answer' : 'worked out from the old end: look at its record',
      ...(booked?.amount && { entry: entryOf(transfer, booked.amount, booked.paymentMethod, booked.svTRID) }),
    },
  };
}

function heldPatch({ paidThrough, setting, settingSince, lock, privacy, transferredAt }: HeldName): NamePatch {
  return {
    term_end: formatInstant(paidThrough),
    term_end_day: false,
    setting,
    standing: setting === 'unknown' ? 'believed' : 'confirmed',
    setting_since: isoOf(settingSince),
    setting_evidence: 'after the transfer',
    lock,
    privacy,
    ...(transferredAt && {
      transferred: formatInstant(transferredAt),
      transferred_day: false,
      transferred_evidence: 'the registrar',
    }),
  };
}

/** Nobody has told: the old end and what a transfer adds; everything else is not known. */
function assumedPatch({ before }: TransferRow, at: Instant | null, transferYears: number): NamePatch {
  return {
    term_end: formatInstant(addYears(before.end, transferYears)),
    setting: 'unknown',
    standing: 'believed',
    setting_since: isoOf(at),
    setting_evidence: 'not seen since the transfer',
    lock: null,
    privacy: null,
    ...(at && {
      transferred: formatInstant(at),
      transferred_day: false,
      transferred_evidence: 'it left its old account',
    }),
  };
}

/** Days within which a registrar’s message asks the holder to confirm the mail address. Common practice: at once, no source. */
const LOOK_FOR_MAIL_DAYS = 1;

/** Makes the name as it was: lock on, auto-renew and privacy as before; its code is unset (RFC 9154 section 4.4). */
export const LOOKING_AFTER: MoveStep<ReadonlyMap<number, SeenBefore>> = {
  at: 'arrived',
  prepare: (deps, transfers) =>
    selectZones(
      deps.database,
      transfers.map(({ id }) => id),
    ),
  async take(deps, transfer, { gaining }, zones) {
    if (!gaining) return null;
    const { before, ascii, toId } = transfer;
    const auto = autoAsBefore(before.setting);
    const settings: NameSettings = {
      lock: true,
      auto,
      ...(before.privacy === null ? {} : { privacy: before.privacy }),
    };
    const set = await setWithoutCode(gaining, ascii, settings);
    if (set.kind !== 'done') return unlessSet(set, toId, () => stays(null));
    const seen = await gaining.info(ascii);
    if (seen.kind !== 'done') return unlessSet(seen, toId, () => stays(null));
    const { before: copied = null, site = null } = zones.get(transfer.id) ?? {};
    const now = copied === null ? null : await seenZone(deps, ascii);
    const zone = now === null || isRefusal(now) ? null : now;
    const differing = [
      serversWords(before.nameServers, seen.value.nameServers),
      copied !== null && zone === null && 'Its zone could not be looked at since: compare it by hand.',
      copied !== null && zone && differenceWords(zoneDifference(copied, zone.zone)),
      site !== null && zone && siteWords(site, await siteOf(deps, zone.zone)),
    ].filter(Boolean);
    return {
      kind: 'on',
      to: 'looked after',
      problem: differing.length === 0 ? null : differing.join(' '),
      patch: { zone_after: zone?.text ?? null },
      ledger: {
        names: { ...heldPatch(seen.value), name_servers: seen.value.nameServers },
        evidence: 'the new registrar’s answer',
      },
    };
  },
};

/** What differs in the name servers; `null` where nothing does, or nothing was known before. */
export function serversWords(before: readonly string[], now: readonly string[]): string | null {
  if (before.length === 0) return null;
  const sorted = (hosts: readonly string[]) => [...hosts].map((host) => host.toLowerCase()).sort();
  return sorted(before).join(' ') === sorted(now).join(' ')
    ? null
    : `Its name servers differ: ${sorted(before).join(', ')} before, ${now.length === 0 ? 'none' : sorted(now).join(', ')} now.`;
}

/** It is over once the holder has confirmed the mail address, where that was asked for; a message may ask for it a day later. */
export const CLOSING: MoveStep = {
  at: 'looked after',
  async take(deps, { confirmMailBy, since, problem }) {
    // What was found to differ stays said: that the mail is to be confirmed is a fact of the name.
    const isOpen = confirmMailBy !== null || deps.clock() < addDays(since, LOOK_FOR_MAIL_DAYS);
    return isOpen ? stays(problem) : { kind: 'on', to: 'closed', problem };
  },
};
