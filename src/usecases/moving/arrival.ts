import { randomUUID } from 'node:crypto';
import { Type } from 'class-transformer';
import { IsInt, IsOptional, IsString, Max, MaxLength, Min, MinLength } from 'class-validator';
import type { HeldName } from '@/connectors/registrar/port';
import { GREATEST_MINOR } from '@/core/money';
import { parseDomainName } from '@/core/names';
import { isRefusal, type Refusal, refuse } from '@/core/refusal';
import { type Day, dayOf, FIRST_DAY, formatInstant, LAST_DAY, startOfDay } from '@/core/time';
import { type AccountRow, selectAccount } from '@/database/accounts';
import { type NamePatch, patchNames } from '@/database/changes';
import { insertEntries } from '@/database/entries';
import { insertNames, selectHeld, selectNameIds } from '@/database/names';
import { insertArrival } from '@/database/transfers';
import { changing } from '../changing';
import type { Deps } from '../deps';
import { linkOf, linkProblem } from '../links/links';
import { command } from '../people/command';
import { OneLine } from '../texts';
import { readRequest, WrittenDay } from '../validate';

/** A name that has come into an account by push, from its holder or from a marketplace. */
export class NameArrived {
  @IsString()
  @MaxLength(300)
  name!: string;

  @Type(() => Number)
  @IsInt({ message: 'Choose the account that it came into.' })
  accountId!: number;

  @IsString()
  @OneLine()
  @MinLength(2, { message: 'Write from whom it came: its holder, or the marketplace.' })
  @MaxLength(200)
  from!: string;

  /** What was paid for it, in minor units of the account's currency; left out where that is booked elsewhere, or was nothing. */
  @IsOptional()
  @Type(() => Number)
  @IsInt({ message: 'Write the amount like 480.00.' })
  @Min(0)
  @Max(GREATEST_MINOR)
  minor?: number;

  /** The end of its term, as the registrar shows it, where the account has no link. */
  @IsOptional()
  @WrittenDay()
  end?: Day;
}

/**
 * Takes a name into the ledger that has come by push: over the link it is looked at first, else by what is told. What is still to be looked
 * after is the end of every other transfer: lock, auto-renew, the holder's mail.
 */
export const takeArrival = command('takeArrival', async (deps: Deps, input: unknown): Promise<string | Refusal> => {
  const arrived = await readRequest(NameArrived, input);
  if (isRefusal(arrived)) return arrived;
  const name = parseDomainName(arrived.name, { allowPrivateEndings: true });
  if (isRefusal(name)) return { ...name, field: 'name' };
  const account = await selectAccount(deps.database, arrived.accountId);
  if (!account) return refuse('account-unknown', 'That account is no longer there. Choose another.', 'accountId');
  const known = (await selectNameIds(deps.database, [name.ascii])).get(name.ascii);
  if ((await selectHeld(deps.database, [name.ascii])).size > 0)
    return refuse('name-known', `${name.unicode} is in the ledger already.`, 'name');
  const seen = await seenAt(deps, account, name.ascii, arrived.end);
  if (isRefusal(seen)) return seen;
  await changing(deps, async (tx, { at, record }) => {
    const batchId = await record('transfer', `Came by push from ${arrived.from}: ${name.ascii}`);
    const fields: NamePatch = { account_id: account.id, ...seen };
    await insertNames(tx, batchId, [{ ascii: name.ascii, unicode: name.unicode, ending: name.ending, fields }], at);
    const nameId = (await selectNameIds(tx, [name.ascii])).get(name.ascii) as number;
    // One that was here before comes back with its books.
    if (known !== undefined)
      await patchNames(tx, batchId, [
        { nameId, patch: { ...fields, gone_at: null }, evidence: `pushed by ${arrived.from}` },
      ]);
    if (arrived.minor)
      await insertEntries(tx, batchId, [
        {
          nameId,
          onDay: dayOf(at),
          kind: 'bought',
          minor: arrived.minor,
          currency: account.currency,
          note: `from ${arrived.from}`,
        },
      ]);
    await insertArrival(tx, randomUUID(), { nameId, cameFrom: arrived.from }, at);
  });
  return name.unicode;
});

/** What is known of it there: the registrar's answer, else the end that was told. */
async function seenAt(
  deps: Deps,
  account: AccountRow,
  ascii: string,
  end: Day | undefined,
): Promise<NamePatch | Refusal> {
  const link = await linkOf(deps, account.id);
  if (link) {
    const info = await link.info(ascii);
    if (info.kind === 'done') return heldFields(info.value);
    return info.kind === 'refused'
      ? refuse(
          'not-arrived',
          `${account.label} does not have it: ${info.reason}. Look whether the push went through.`,
          'name',
        )
      : refuse('link-failed', linkProblem(info));
  }
  if (end === undefined || end < FIRST_DAY || end > LAST_DAY)
    return refuse('end-missing', `Write the end of its term as ${account.label} shows it.`, 'end');
  return { term_end: formatInstant(startOfDay(end)), term_end_day: true };
}

function heldFields({ paidThrough, registeredAt, setting, lock, privacy, nameServers }: HeldName): NamePatch {
  return {
    term_end: formatInstant(paidThrough),
    registered: registeredAt === null ? null : formatInstant(registeredAt),
    setting,
    standing: setting === 'unknown' ? 'believed' : 'confirmed',
    lock,
    privacy,
    name_servers: nameServers,
  };
}
