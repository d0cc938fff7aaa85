import type { Switch } from '@/core/ledger';
import { isCurrency, parseDecimal } from '@/core/money';
import { isRefusal, type Refusal, refuse } from '@/core/refusal';
import {
  dayOf,
  endOfDay,
  FIRST_DAY,
  formatInstant,
  LAST_DAY,
  parseTermEnd,
  startOfDay,
  type TermEnd,
} from '@/core/time';
import { selectAccount } from '@/database/accounts';
import type { NamePatch, PatchedName } from '@/database/changes';
import { selectTagPatches } from '@/database/names';
import type { Transaction } from '@/database/pool';
import { confirmAddressesOf, selectToConfirmWith } from '@/database/registrations';
import { selectSettings } from '@/database/settings';
import { changing, type Done } from '../changing';
import type { Deps } from '../deps';
import { command } from '../people/command';
import { readRequest } from '../validate';
import { ConfirmSwitch, EditNames, type NameEdit, RequestSwitch } from './requests';

/** Opens a batch, carries out the patches, and drops the batch again when nothing differed. */
export async function carryOut(
  deps: Deps,
  kind: string,
  summary: string,
  patchesOf: (tx: Transaction) => Promise<readonly PatchedName[]>,
): Promise<Done> {
  return changing(deps, async (tx, change) => change.names(kind, summary, await patchesOf(tx)));
}

/** Changes account, purpose, tags, asking price and the like on many names, with undo. */
export const editNames = command('editNames', async (deps: Deps, input: unknown): Promise<Done | Refusal> => {
  const request = await readRequest(EditNames, input);
  if (isRefusal(request)) return request;
  const { nameIds, edit } = request;
  const fields = await fieldsOf(deps, edit);
  if (isRefusal(fields)) return fields;
  return carryOut(deps, 'edit', summaryOf(edit, nameIds.length), async (tx) => {
    // What hangs on the same address is confirmed with it.
    const others = edit.mailConfirmed
      ? await selectToConfirmWith(tx, await confirmAddressesOf(tx, nameIds, deps.clock()))
      : [];
    const tags =
      edit.addTags || edit.removeTags
        ? await selectTagPatches(tx, nameIds, edit.addTags ?? [], edit.removeTags ?? [])
        : [];
    const tagsOf = new Map(tags.map(({ nameId, patch }) => [nameId, patch]));
    const evidence = edit.evidence?.trim() || null;
    const chosen = new Set(nameIds);
    return [
      ...nameIds.map((nameId) => ({ nameId, patch: { ...fields, ...tagsOf.get(nameId) }, evidence })),
      ...others
        .filter((nameId) => !chosen.has(nameId))
        .map((nameId) => ({ nameId, patch: { confirm_mail_by: null }, evidence })),
    ];
  });
});

async function fieldsOf(deps: Deps, edit: NameEdit): Promise<NamePatch | Refusal> {
  const fields: NamePatch = {};
  if (edit.accountId !== undefined) {
    if (!(await selectAccount(deps.database, edit.accountId)))
      return refuse('account-unknown', 'That account is no longer there. Choose another.', 'accountId');
    fields.account_id = edit.accountId;
  }
  if (edit.purpose !== undefined) fields.purpose = edit.purpose;
  if (edit.neverLost !== undefined) fields.never_lost = edit.neverLost;
  if (edit.lock !== undefined) fields.lock = edit.lock;
  if (edit.privacy !== undefined) fields.privacy = edit.privacy;
  if (edit.notes !== undefined) fields.notes = edit.notes;
  if (edit.mailConfirmed) fields.confirm_mail_by = null;
  if (edit.confirmMailBy !== undefined) {
    const by = parseTermEnd(edit.confirmMailBy);
    if (!by || !withinReach(by))
      return refuse('date-out-of-range', 'Write the last day to confirm like 2026-12-09.', 'confirmMailBy');
    const { zone } = await selectSettings(deps.database);
    // A day is the last one on which it can be confirmed.
    fields.confirm_mail_by = formatInstant(by.precision === 'day' ? endOfDay(dayOf(by.at), zone) : by.at);
  }
  if (edit.clearNotes) fields.notes = '';
  if (edit.asking) {
    const asking = isCurrency(edit.asking.currency) ? parseDecimal(edit.asking.amount, edit.asking.currency) : null;
    if (!asking || asking.minor < 0)
      return refuse('asking-invalid', 'Write the asking price as a plain amount, like 1200.', 'asking');
    Object.assign(fields, { asking_minor: asking.minor, asking_currency: asking.currency });
  }
  if (edit.clearAsking) Object.assign(fields, { asking_minor: null, asking_currency: null });
  for (const [text, at, day] of [
    [edit.expiresAt, 'term_end', 'term_end_day'],
    [edit.registeredAt, 'registered', 'registered_day'],
    [edit.transferredAt, 'transferred', 'transferred_day'],
    [edit.holderChangedAt, 'holder_changed', 'holder_changed_day'],
  ] as const) {
    if (text === undefined) continue;
    const end = parseTermEnd(text);
    if (!end || !withinReach(end))
      return refuse(
        'date-out-of-range',
        `${text.slice(0, 40)} is not a day between 1985 and 2099. Check it.`,
        DATE_FIELDS[at],
      );
    Object.assign(fields, { [at]: formatInstant(end.at), [day]: end.precision === 'day' });
    if (at === 'transferred' || at === 'holder_changed')
      fields[`${at}_evidence`] = edit.evidence?.trim() || 'entered by hand';
  }
  if (edit.holderLockWaived !== undefined) fields.holder_lock_waived = edit.holderLockWaived;
  return fields;
}

/** The request’s field of each date. */
const DATE_FIELDS = {
  term_end: 'expiresAt',
  registered: 'registeredAt',
  transferred: 'transferredAt',
  holder_changed: 'holderChangedAt',
} as const;

function withinReach(end: TermEnd): boolean {
  return end.at >= startOfDay(FIRST_DAY) && end.at < startOfDay(LAST_DAY);
}

function summaryOf(edit: NameEdit, names: number): string {
  const what = [
    edit.accountId !== undefined && 'account',
    edit.purpose && `purpose “${edit.purpose}”`,
    edit.neverLost !== undefined && 'never to be lost',
    (edit.addTags || edit.removeTags) && 'tags',
    (edit.notes !== undefined || edit.clearNotes) && 'notes',
    (edit.asking || edit.clearAsking) && 'asking price',
    edit.lock !== undefined && 'lock',
    edit.privacy !== undefined && 'privacy',
    edit.confirmMailBy && 'the day to confirm the holder’s mail by',
    edit.mailConfirmed && 'holder’s mail confirmed',
    (edit.expiresAt || edit.registeredAt) && 'dates',
    edit.transferredAt && 'last transfer',
    (edit.holderChangedAt || edit.holderLockWaived !== undefined) && 'change of holder',
  ].filter((word): word is string => typeof word === 'string');
  return `Set ${what.join(', ') || 'nothing'} on ${names === 1 ? 'one name' : `${names} names`}`;
}

/** How each switch stands in a name's columns: what it is, and what it was asked to become. */
export const REQUESTED: Readonly<Record<Switch, (to: 'on' | 'off', at: string) => NamePatch>> = {
  'auto-renew': (requested, requested_at) => ({ requested, requested_at }),
  lock: (to) => ({ requested_lock: to === 'on' }),
  privacy: (to) => ({ requested_privacy: to === 'on' }),
};

/** The columns that say that a registrar has confirmed a switch; ends what was asked. */
export const SWITCHED: Readonly<
  Record<Switch, (setting: 'on' | 'off' | 'stalled', at: string, evidence: string) => NamePatch>
> = {
  'auto-renew': (setting, setting_since, setting_evidence) => ({
    ...NOT_REQUESTED['auto-renew'],
    setting,
    standing: 'confirmed',
    setting_since,
    setting_evidence,
  }),
  lock: (setting) => ({ ...NOT_REQUESTED.lock, lock: setting === 'on' }),
  privacy: (setting) => ({ ...NOT_REQUESTED.privacy, privacy: setting === 'on' }),
};

/** The columns that take back what was asked. */
export const NOT_REQUESTED: Readonly<Record<Switch, NamePatch>> = {
  'auto-renew': { requested: null, requested_at: null, switch_pending_since: null },
  lock: { requested_lock: null },
  privacy: { requested_privacy: null },
};

/**
 * Notes that the registrar is being asked to switch auto-renew, lock or privacy. The setting itself stays as it was known
 * until it is confirmed, so that the ledger never shows as done what was only asked.
 */
export const requestSwitch = command('requestSwitch', async (deps: Deps, input: unknown): Promise<Done | Refusal> => {
  const request = await readRequest(RequestSwitch, input);
  if (isRefusal(request)) return request;
  const { nameIds, what, to } = request;
  const patch = REQUESTED[what](to, formatInstant(deps.clock()));
  return carryOut(deps, `${what} requested`, `Asked for ${what} ${to} on ${countNames(nameIds)}`, async () =>
    nameIds.map((nameId) => ({ nameId, patch })),
  );
});

/** Takes down what the registrar shows, with what was seen as evidence. Ends a pending ask. */
export const confirmSwitch = command('confirmSwitch', async (deps: Deps, input: unknown): Promise<Done | Refusal> => {
  const request = await readRequest(ConfirmSwitch, input);
  if (isRefusal(request)) return request;
  const { nameIds, what, setting, evidence } = request;
  if (setting === 'stalled' && what !== 'auto-renew')
    return refuse('switch-invalid', 'Only auto-renew can be stalled. Say on or off.', 'setting');
  const patch = SWITCHED[what](setting, formatInstant(deps.clock()), evidence);
  return carryOut(deps, `${what} confirmed`, `Confirmed ${what} ${setting} on ${countNames(nameIds)}`, async () =>
    nameIds.map((nameId) => ({ nameId, patch, evidence })),
  );
});

function countNames(nameIds: readonly number[]): string {
  return nameIds.length === 1 ? 'one name' : `${nameIds.length} names`;
}
