import { Type } from 'class-transformer';
import {
  ArrayMaxSize,
  ArrayNotEmpty,
  IsArray,
  IsInt,
  IsOptional,
  IsString,
  Max,
  MaxLength,
  Min,
} from 'class-validator';
import { GREATEST_MINOR } from '@/core/money';
import { parseDomainName } from '@/core/names';
import { isRefusal, type Refusal, refuse } from '@/core/refusal';
import { type Day, dayOf, type Instant, parseDay, startOfDay } from '@/core/time';
import { selectAccounts } from '@/database/accounts';
import { selectHeld } from '@/database/names';
import {
  insertReleaseOrder,
  moveRelease,
  type ReleaseOrderRow,
  type ReleaseTry,
  selectReleaseOrders,
  selectTries,
} from '@/database/releaseOrders';
import { selectSettings } from '@/database/settings';
import { insertWatches } from '@/database/watches';
import { changing } from '../changing';
import type { Deps } from '../deps';
import { command } from '../people/command';
import type { Weighty } from '../people/secondPerson';
import { noteWatched, releaseFor } from '../records/watched';
import { readRequest, WrittenDay } from '../validate';

export type { ReleaseOrderRow, ReleaseTry } from '@/database/releaseOrders';

/** A name that is to be registered when it is released, at one or several accounts in order. */
export class OrderAtRelease {
  @IsString()
  @MaxLength(300)
  name!: string;

  @IsArray()
  @ArrayNotEmpty({ message: 'Choose an account at least.' })
  @ArrayMaxSize(10)
  @Type(() => Number)
  @IsInt({ each: true })
  accountIds!: number[];

  @Type(() => Number)
  @IsInt()
  @Min(1)
  @Max(10)
  years!: number;

  /** The most the first term may cost, minor units of the office's currency. */
  @Type(() => Number)
  @IsInt({ message: 'Write the most that the first term may cost.' })
  @Min(1, { message: 'Write the most that the first term may cost.' })
  @Max(GREATEST_MINOR)
  mostFirstMinor!: number;

  @Type(() => Number)
  @IsInt({ message: 'Write the most that a renewal may cost.' })
  @Min(1, { message: 'Write the most that a renewal may cost.' })
  @Max(GREATEST_MINOR)
  mostRenewalMinor!: number;

  /** The last day on which it is tried. */
  @WrittenDay({ message: 'Write the last day like 2027-09-21.' })
  until!: Day;

  @IsOptional()
  @IsString()
  @MaxLength(2000)
  note?: string;
}

const DAY_MS = 86_400_000;

/** An order at release may register a name when nobody looks: it wants a second person now. */
async function weightOfOrder(_deps: Deps, input: unknown): Promise<Weighty | null> {
  const request = await readRequest(OrderAtRelease, input);
  if (isRefusal(request)) return null;
  return { what: `Order ${request.name} at its release`, isGrave: true, spendsMinor: request.mostFirstMinor };
}

/**
 * Orders a name for the moment it is released: from the earliest instant that its record and its ending's policy point to (now, where nothing
 * does), until the day that is said. It is watched from then on.
 */
export const orderAtRelease = command(
  'orderAtRelease',
  async (deps: Deps, input: unknown): Promise<number | Refusal> => {
    const request = await readRequest(OrderAtRelease, input);
    if (isRefusal(request)) return request;
    const name = parseDomainName(request.name);
    if (isRefusal(name)) return { ...name, field: 'name' };
    const at = deps.clock();
    if ((await selectHeld(deps.database, [name.ascii])).size > 0)
      return refuse('name-known', `${name.unicode} is in the ledger already.`, 'name');
    const accounts = await selectAccounts(deps.database);
    const unlinked = request.accountIds
      .map((id) => accounts.find((account) => account.id === id))
      .find((account) => !account?.linked);
    if (unlinked !== undefined || request.accountIds.some((id) => !accounts.some((account) => account.id === id)))
      return refuse(
        'account-not-linked',
        'A name is ordered at release over links only: a person would be too late. Choose linked accounts.',
        'accountIds',
      );
    const until = parseDay(request.until);
    if (!until) return refuse('date-does-not-exist', 'Write the last day like 2027-09-21.', 'until');
    const release = await releaseFor(deps, name.ascii, name.ending);
    const fromAt = Math.max(release?.earliest ?? at, at) as Instant;
    // The last day counts whole.
    const untilAt = (startOfDay(until) + DAY_MS) as Instant;
    if (untilAt <= fromAt)
      return refuse(
        'until-too-early',
        `It is released on ${dayOf(fromAt)} at the earliest. Write a later last day.`,
        'until',
      );
    const { homeCurrency } = await selectSettings(deps.database);
    const made = await changing(deps, async (tx) => {
      const id = await insertReleaseOrder(
        tx,
        {
          ascii: name.ascii,
          unicode: name.unicode,
          ending: name.ending,
          accountIds: [...new Set(request.accountIds)],
          years: request.years,
          mostFirstMinor: request.mostFirstMinor,
          mostRenewalMinor: request.mostRenewalMinor,
          currency: homeCurrency,
          fromAt,
          untilAt,
          note: request.note ?? '',
        },
        at,
      );
      if (id === null) return refuse('order-open', `${name.unicode} is ordered already.`, 'name');
      await insertWatches(tx, [{ ascii: name.ascii, unicode: name.unicode, ending: name.ending, note: '' }], at);
      return id;
    });
    if (!isRefusal(made)) await noteWatched(deps, [name.ascii]);
    return made;
  },
  weightOfOrder,
);

/** Every order at release, the open ones first. */
export function releaseOrders(deps: Deps): Promise<ReleaseOrderRow[]> {
  return selectReleaseOrders(deps.database);
}

/** What was tried for one order, the newest first. */
export function releaseTries(deps: Deps, orderId: number): Promise<ReleaseTry[]> {
  return selectTries(deps.database, orderId);
}

/** Stops an order; what may have been sent already is settled all the same. */
export const stopRelease = command('stopRelease', async (deps: Deps, id: number): Promise<true | Refusal> => {
  const stopped = await moveRelease(deps.database, id, { state: 'stopped', problem: null }, deps.clock());
  return stopped || refuse('order-settled', 'This order is settled already. Load the page again.');
});
