import { CONFIRM_MAIL_DAYS } from '@/core/acquiring';
import { PLAIN_PRICE } from '@/core/pricing';
import { addDays, dayOf, formatInstant, type Instant } from '@/core/time';
import { type NamePatch, patchNames } from '@/database/changes';
import { insertEntries } from '@/database/entries';
import { updateBalance } from '@/database/links';
import { insertNames, selectNameIds } from '@/database/names';
import type { Transaction } from '@/database/pool';
import { upsertPrices } from '@/database/prices';
import {
  askHolderAddress,
  nameRegistrations,
  type RegistrationRow,
  settleRegistrations,
} from '@/database/registrations';
import { deleteWanted } from '@/database/wanted';
import type { Change } from '../changing';
import { evidenceOf, type Receipted } from '../orders/booking';
import { type ConfirmedAddresses, confirmedAddresses } from './addresses';

/** A registration as it was carried out. */
export interface Registered extends Receipted {
  readonly createdAt: Instant;
  readonly paidThrough: Instant;
  /** What is to be known all the same. */
  readonly problem: string | null;
}

export interface BookedRegistration {
  readonly registration: RegistrationRow;
  readonly registered: Registered;
}

/**
 * Writes down names that are registered, each once: the name in the ledger with its end, settings asked for as they were chosen, its
 * entry, its own price where it has one, and by when its holder's mail is to be confirmed. It leaves the shortlist.
 */
export async function bookRegistered(
  tx: Transaction,
  { at, record }: Change,
  done: readonly BookedRegistration[],
): Promise<void> {
  const isNew = await settleRegistrations(
    tx,
    done.map(({ registration: { id }, registered: { taken, receipt, createdAt, paidThrough, problem } }) => ({
      id,
      chargedMinor: taken?.minor ?? null,
      receipt,
      registeredAt: createdAt,
      newEnd: paidThrough,
      problem,
    })),
    at,
  );
  const booked = done.filter(({ registration }) => isNew.has(registration.id));
  if (booked.length === 0) return;
  const what = booked.length === 1 ? booked[0]?.registration.ascii : `${booked.length} names`;
  const batchId = await record('registration', `Registered: ${what}`);
  const isConfirmed = await confirmedAddresses(tx);
  const names = booked.map((one) => ({ ...one, fields: fieldsOf(one, isConfirmed, at) }));
  const ascii = booked.map(({ registration }) => registration.ascii);
  const known = await selectNameIds(tx, ascii);
  await insertNames(
    tx,
    batchId,
    names.map(({ registration, fields }) => ({
      ascii: registration.ascii,
      unicode: registration.unicode,
      ending: registration.ending,
      fields,
    })),
    at,
  );
  // One that was here before comes back with its books.
  await patchNames(
    tx,
    batchId,
    names.flatMap(({ registration, registered, fields }) => {
      const nameId = known.get(registration.ascii);
      return nameId === undefined
        ? []
        : [{ nameId, patch: { ...fields, gone_at: null }, evidence: evidenceOf(registered.receipt) }];
    }),
  );
  const ids = await selectNameIds(tx, ascii);
  await enterMoney(tx, batchId, at, booked, ids);
  await upsertPrices(tx, ownPrices(booked, ids, at));
  await askHolderAddress(tx, addressesOf(booked), at);
  await nameRegistrations(tx, [...isNew]);
  await deleteWanted(tx, ascii);
}

/** The name as the ledger has it from now on. What was chosen is asked for at the registrar like any switch. */
function fieldsOf(
  { registration, registered }: BookedRegistration,
  isConfirmed: ConfirmedAddresses,
  at: Instant,
): NamePatch {
  const { accountId, autoRenew, privacy, nameServers, purpose, note, holderMail, byHand } = registration;
  const notes = [note, purpose === '' ? '' : `For: ${purpose}`].filter((text) => text !== '').join('\n');
  return {
    account_id: accountId,
    term_end: formatInstant(registered.paidThrough),
    // What a person tells is a day.
    term_end_day: byHand,
    registered: formatInstant(registered.createdAt),
    // By hand the person has set it there with the registration; over a link it is set next.
    setting: byHand && autoRenew ? 'on' : 'off',
    standing: byHand ? 'believed' : 'confirmed',
    setting_since: formatInstant(registered.createdAt),
    requested: !byHand && autoRenew ? 'on' : null,
    requested_at: !byHand && autoRenew ? formatInstant(at) : null,
    requested_lock: byHand ? null : true,
    requested_privacy: !byHand && privacy ? true : null,
    privacy: byHand ? privacy : false,
    name_servers: nameServers,
    purpose: 'hold',
    observed: null,
    observed_at: null,
    notes,
    confirm_mail_by:
      holderMail !== null && isConfirmed(accountId, holderMail)
        ? null
        : formatInstant(addDays(registered.createdAt, CONFIRM_MAIL_DAYS)),
  };
}

async function enterMoney(
  tx: Transaction,
  batchId: number,
  at: Instant,
  booked: readonly BookedRegistration[],
  ids: ReadonlyMap<string, number>,
): Promise<void> {
  await insertEntries(
    tx,
    batchId,
    booked.flatMap(({ registration, registered: { taken, receipt, paymentMethod, createdAt } }) =>
      taken === null
        ? []
        : [
            {
              nameId: ids.get(registration.ascii) as number,
              onDay: dayOf(createdAt),
              kind: 'registration' as const,
              minor: taken.minor,
              currency: taken.currency,
              paymentMethod: paymentMethod ?? '',
              reference: receipt ?? '',
              note: noteOf(registration),
              quotedMinor: taken.currency === registration.currency ? registration.quotedMinor : null,
            },
          ],
    ),
  );
  for (const accountId of new Set(booked.map(({ registration }) => registration.accountId))) {
    const balances = booked.flatMap(({ registration, registered }) =>
      registration.accountId === accountId && registered.balance ? [registered.balance] : [],
    );
    const least = balances.reduce<(typeof balances)[number] | null>(
      (low, one) => (low === null || one.minor < low.minor ? one : low),
      null,
    );
    // Answers come in any order; money only goes out here, so the least balance told is the last.
    if (least !== null) await updateBalance(tx, accountId, least, at);
  }
}

/** The receipt names the term, and both forms where they differ. */
function noteOf({ ascii, unicode, years }: RegistrationRow): string {
  const forms = ascii === unicode ? ascii : `${ascii} (${unicode})`;
  return `${years} ${years === 1 ? 'year' : 'years'}, ${forms}`;
}

/** A name with a price of its own keeps it: its renewals are dear. */
function ownPrices(booked: readonly BookedRegistration[], ids: ReadonlyMap<string, number>, at: Instant) {
  return booked.flatMap(({ registration: { ascii, ending, accountId, ownRenewalMinor, currency, years } }) =>
    ownRenewalMinor === null
      ? []
      : [
          {
            ...PLAIN_PRICE,
            accountId,
            nameId: ids.get(ascii) as number,
            ending,
            action: 'renew' as const,
            currency,
            yearMinor: Math.round(ownRenewalMinor / years),
            feeIncluded: true,
            from: dayOf(at),
            origin: 'list' as const,
            source: 'told by the registrar when it was registered',
          },
        ],
  );
}

function addressesOf(booked: readonly BookedRegistration[]) {
  return booked.flatMap(({ registration: { accountId, holderMail } }) =>
    holderMail === null ? [] : [{ accountId, address: holderMail }],
  );
}
