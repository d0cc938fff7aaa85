import { isEmail } from 'class-validator';
import { parseDomainName } from '@/core/names';
import { holderOf } from '@/core/records';
import { isRefusal, type Refusal, refuse } from '@/core/refusal';
import { addDays, dayOf, FIRST_DAY, parseDay, startOfDay } from '@/core/time';
import {
  type ApproachRow,
  insertApproach,
  insertApproachLine,
  lockApproach,
  noteLineSent,
  selectApproaches,
  updateApproach,
} from '@/database/approaches';
import { insertEntries } from '@/database/entries';
import { selectHeld, selectNameIds } from '@/database/names';
import { type Transaction, transaction } from '@/database/pool';
import { selectNewestRecords } from '@/database/records';
import { type Change, changing } from '../changing';
import type { Deps } from '../deps';
import { causeOf } from '../log';
import { takeArrival } from '../moving/arrival';
import { command } from '../people/command';
import { checkNow } from '../records/check';
import { mailTo } from '../reminders/mailOffice';
import { readRequest } from '../validate';
import { BeginApproach, MoveApproach, SayApproach } from './approachRequests';

export type { ApproachLine, ApproachRow } from '@/database/approaches';

/** Every thread with a holder, the open ones first. */
export function approaches(deps: Deps): Promise<ApproachRow[]> {
  return selectApproaches(deps.database);
}

/** Begins to ask the holder of a name. Its record says who that is, where nobody does. One's own names are not asked for. */
export const beginApproach = command('beginApproach', async (deps: Deps, input: unknown): Promise<number | Refusal> => {
  const request = await readRequest(BeginApproach, input);
  if (isRefusal(request)) return request;
  const name = parseDomainName(request.name);
  if (isRefusal(name)) return { ...name, field: 'name' };
  if ((await selectHeld(deps.database, [name.ascii])).size > 0)
    return refuse('name-known', `${name.unicode} is your own: there is nobody to ask.`, 'name');
  // The registrar's own record shows more than the registry's: it is asked now. What it does not tell, the person may.
  await checkNow(deps, name.ascii);
  const records = (await selectNewestRecords(deps.database, [name.ascii])).map(({ record }) => record);
  const shown = records.map(holderOf).find((one) => one !== null) ?? '';
  const mail = records.map(({ holder }) => holder?.mail ?? null).find((one) => one !== null && isEmail(one)) ?? '';
  const { limitMinor = null, currency, note = '' } = request;
  const draft = {
    ascii: name.ascii,
    unicode: name.unicode,
    ending: name.ending,
    holder: request.holder?.trim() || shown,
    contact: request.contact?.trim() || mail,
    limitMinor,
    currency,
    note,
  };
  const id = await transaction(deps.database, (tx) => insertApproach(tx, draft, deps.clock()));
  return id ?? refuse('approach-open', `The holder of ${name.unicode} is being asked already.`, 'name');
});

const gone = () => refuse('approach-unknown', 'This thread is no longer there, or is settled. Load the page again.');

/**
 * Writes down what was said; ours may be sent as mail to the holder. The line is kept before the mail is handed over: one without an
 * answer of the mail server stands there as not known to be sent, and nothing is sent twice by itself.
 */
export const sayApproach = command('sayApproach', async (deps: Deps, input: unknown): Promise<true | Refusal> => {
  const said = await readRequest(SayApproach, input);
  if (isRefusal(said)) return said;
  const byMail = said.isOurs && said.byMail === true;
  const day = said.answerBy === undefined ? null : parseDay(said.answerBy);
  if (said.answerBy !== undefined && !day)
    return refuse('date-does-not-exist', 'Write the day like 2027-09-21.', 'answerBy');
  const kept = await transaction(
    deps.database,
    async (tx): Promise<{ approach: ApproachRow; lineId: number } | Refusal> => {
      const approach = await lockApproach(tx, said.id);
      if (approach?.state !== 'open') return gone();
      if (byMail && approach.contact === '')
        return refuse('contact-missing', 'No mail address of the holder is known.', 'byMail');
      const { limitMinor } = approach;
      if (said.isOurs && said.figureMinor !== undefined && limitMinor !== null && said.figureMinor > limitMinor)
        return refuse('over-limit', 'That is more than your own limit for this name.', 'figureMinor');
      const line = { isOurs: said.isOurs, byMail, text: said.text.trim(), figureMinor: said.figureMinor ?? null };
      const lineId = await insertApproachLine(tx, said.id, line, deps.clock());
      // The last day counts whole.
      await updateApproach(
        tx,
        said.id,
        { answer_by: day ? new Date(addDays(startOfDay(day), 1)) : null },
        deps.clock(),
      );
      return { approach, lineId };
    },
  );
  if (isRefusal(kept)) return kept;
  if (!byMail) return true;
  try {
    const subject = said.subject?.trim() || `About ${kept.approach.unicode}`;
    if (!(await mailTo(deps, kept.approach.contact, subject, `${said.text.trim()}\n`)))
      return refuse(
        'no-mail-server',
        'No mail server is set: it is written down, and not sent. Set one under Setup → Mail.',
        'byMail',
      );
    await noteLineSent(deps.database, kept.lineId, deps.clock());
    return true;
  } catch (error) {
    deps.log.warn({ err: error, approach: said.id }, 'a mail to a holder could not be handed over');
    return refuse(
      'mail-failed',
      `The mail server did not take it (${causeOf(error).message}). It is written down, and may not have been sent.`,
      'byMail',
    );
  }
});

/** Takes a thread on: agreed, paid, arrived (the name comes into the ledger, its price is booked from the day it was paid), or ended. */
export const moveApproach = command('moveApproach', async (deps: Deps, input: unknown): Promise<string | Refusal> => {
  const move = await readRequest(MoveApproach, input);
  if (isRefusal(move)) return move;
  if (move.to === 'arrived') return arrive(deps, move);
  return changing(deps, async (tx, change) => {
    const approach = await lockApproach(tx, move.id);
    if (!approach) return gone();
    switch (move.to) {
      case 'agreed':
        return agree(tx, change, approach, move);
      case 'paid':
        return pay(tx, change, approach, move);
      default:
        if (approach.state === 'arrived' || approach.state === 'ended') return gone();
        await updateApproach(tx, approach.id, { state: 'ended', answer_by: null }, change.at);
        return approach.unicode;
    }
  });
});

async function agree(
  tx: Transaction,
  { at }: Change,
  approach: ApproachRow,
  move: MoveApproach,
): Promise<string | Refusal> {
  if (approach.state !== 'open') return gone();
  const { agreedMinor, accountId, arrivesBy } = move;
  if (agreedMinor === undefined) return refuse('amount-missing', 'Write the price that was agreed.', 'agreedMinor');
  if (accountId === undefined || arrivesBy === undefined)
    return refuse('account-missing', 'Choose the account that it is to come into, and how.', 'accountId');
  if (approach.limitMinor !== null && agreedMinor + (move.feesMinor ?? 0) > approach.limitMinor && !move.isOverLimit)
    return refuse(
      'over-limit',
      'With its fees that is more than your own limit. Say that it is meant, or end the thread.',
      'agreedMinor',
    );
  await updateApproach(
    tx,
    approach.id,
    {
      state: 'agreed',
      answer_by: null,
      agreed_minor: agreedMinor,
      fees_minor: move.feesMinor ?? 0,
      money_with: move.moneyWith ?? '',
      arrives_by: arrivesBy,
      account_id: accountId,
    },
    at,
  );
  return approach.unicode;
}

async function pay(
  tx: Transaction,
  { at }: Change,
  approach: ApproachRow,
  move: MoveApproach,
): Promise<string | Refusal> {
  if (approach.state !== 'agreed') return gone();
  const day = move.paidOn === undefined ? null : parseDay(move.paidOn);
  if (!day || day < FIRST_DAY || day > dayOf(at))
    return refuse('date-out-of-range', 'Write the day on which it was paid: today or before.', 'paidOn');
  await updateApproach(tx, approach.id, { state: 'paid', paid_on: day, reference: move.reference ?? '' }, at);
  return approach.unicode;
}

/** The name is taken into the ledger first: over the link it is looked at, so that what has not come is not booked as come. */
async function arrive(deps: Deps, move: MoveApproach): Promise<string | Refusal> {
  const approach = (await selectApproaches(deps.database)).find(({ id }) => id === move.id);
  if (approach?.state !== 'paid' || approach.accountId === null) return gone();
  const held = await selectHeld(deps.database, [approach.ascii]);
  if (held.size === 0) {
    const came = await takeArrival(deps, {
      name: approach.ascii,
      accountId: approach.accountId,
      from: approach.holder || 'its holder',
      ...(move.end === undefined ? {} : { end: move.end }),
    });
    if (isRefusal(came)) return came;
  }
  return changing(deps, async (tx, change) => {
    const now = await lockApproach(tx, move.id);
    if (now?.state !== 'paid') return gone();
    await book(tx, change, now);
    return now.unicode;
  });
}

/** What it has cost, from the day it was paid: the price, and what the one who held the money took. */
async function book(tx: Transaction, { at, record }: Change, approach: ApproachRow): Promise<void> {
  const { ascii, agreedMinor, feesMinor, currency, paidOn, reference, holder, moneyWith } = approach;
  const nameId = (await selectNameIds(tx, [ascii])).get(ascii);
  if (nameId === undefined) throw new Error(`${ascii} has arrived and is not in the ledger`);
  const batchId = await record('purchase', `Bought from its holder: ${ascii}`);
  const entry = { nameId, onDay: paidOn ?? dayOf(at), currency, reference };
  const from = holder === '' ? 'its holder' : holder;
  await insertEntries(tx, batchId, [
    { ...entry, kind: 'bought' as const, minor: agreedMinor ?? 0, note: `from ${from}` },
    ...(feesMinor > 0
      ? [
          {
            ...entry,
            kind: 'other' as const,
            minor: feesMinor,
            note: `fees${moneyWith === '' ? '' : ` of ${moneyWith}`}`,
          },
        ]
      : []),
  ]);
  await updateApproach(tx, approach.id, { state: 'arrived', name_id: nameId }, at);
}
