import { randomUUID } from 'node:crypto';
import { Type } from 'class-transformer';
import {
  ArrayMaxSize,
  ArrayNotEmpty,
  IsArray,
  IsInt,
  IsOptional,
  IsString,
  MaxLength,
  Min,
  ValidateNested,
} from 'class-validator';
import { amount } from '@/core/money';
import { readHosts } from '@/core/names';
import { isRefusal, type Refusal, refuse } from '@/core/refusal';
import { selectAccounts } from '@/database/accounts';
import {
  deleteRegistrations,
  insertRegistrations,
  type RegistrationDraft,
  type RegistrationRow,
  selectOpenRegistrations,
  selectRegistrationRun,
  selectRegistrations,
  selectSettledRegistrations,
} from '@/database/registrations';
import { changing } from '../changing';
import type { Deps } from '../deps';
import { command } from '../people/command';
import { namesOrOne, type Weighty } from '../people/secondPerson';
import { homeMinor } from '../rates/homeMinor';
import { readRequest } from '../validate';
import { ReviewChoice } from './requests';
import { type ReviewItem, reviewNames } from './review';

export type { RegistrationRow } from '@/database/registrations';

/** A name with the sum that was shown for it: nothing is bought for more than somebody has seen. */
export class AgreedName extends ReviewChoice {
  /** Minor units of the account's currency. */
  @Type(() => Number)
  @IsInt({ message: 'The sum that was shown is missing. Load the page again.' })
  @Min(0)
  agreedMinor!: number;
}

export class RegisterNames {
  @IsArray()
  @ArrayNotEmpty({ message: 'Choose a name.' })
  @ArrayMaxSize(100)
  @ValidateNested({ each: true })
  @Type(() => AgreedName)
  items!: AgreedName[];

  /** Told again, the same names are registered once. */
  @IsOptional()
  @IsString()
  @MaxLength(100)
  key?: string;

  /** Which payment method is to pay at which account: `accountId label`, one each. */
  @IsOptional()
  @IsArray()
  @ArrayMaxSize(50)
  @IsString({ each: true })
  payBy?: string[];
}

/** Registering wants a second person; it may cost what was agreed for each name. */
async function weightOfRegistering(deps: Deps, input: unknown): Promise<Weighty | null> {
  const request = await readRequest(RegisterNames, input);
  if (isRefusal(request)) return null;
  const accounts = new Map((await selectAccounts(deps.database)).map(({ id, currency }) => [id, currency]));
  const sums = request.items.map(({ accountId, agreedMinor }) => {
    const currency = accounts.get(accountId ?? 0);
    return currency === undefined ? null : amount(agreedMinor, currency);
  });
  const what = `Register ${namesOrOne(request.items.map(({ ascii }) => ascii))}`;
  return { what, isGrave: true, spendsMinor: await homeMinor(deps, sums) };
}

/**
 * Puts names of the shortlist on their way to be registered, for at most the sums that were shown. Each is reviewed once more first: one
 * that costs more now, or is no longer to be had, refuses them all, and nothing is bought. Answers the run.
 */
export const registerNames = command(
  'registerNames',
  async (deps: Deps, input: unknown): Promise<string | Refusal> => {
    const request = await readRequest(RegisterNames, input);
    if (isRefusal(request)) return request;
    const { key = null } = request;
    const begun = key === null ? null : await selectRegistrationRun(deps.database, key);
    if (begun !== null) return begun;
    const review = await reviewNames(deps, {
      choices: request.items.map(({ agreedMinor: _, ...choice }) => ({ ...choice })),
    });
    if (isRefusal(review)) return review;
    const agreed = new Map(request.items.map((item) => [item.ascii, item.agreedMinor]));
    const accounts = new Map((await selectAccounts(deps.database)).map((account) => [account.id, account]));
    const drafts: RegistrationDraft[] = [];
    for (const { ascii } of request.items) {
      const item = review.items.find(({ wanted }) => wanted.ascii === ascii);
      if (!item) return refuse('name-not-wanted', `${ascii} is no longer on the shortlist. Load the page again.`);
      const account = item.accountId === null ? null : accounts.get(item.accountId);
      if (!account || item.price === null || item.problem !== '')
        return refuse(
          'name-not-to-be-had',
          `${item.wanted.unicode}: ${item.problem || 'no price could be had.'} Nothing was bought.`,
        );
      const sum = agreed.get(ascii) ?? 0;
      if (item.price.total.minor > sum)
        return refuse(
          'price-rose',
          `${item.wanted.unicode} costs more now than was shown. Look at the review again: nothing was bought.`,
        );
      const servers = item.nameServers.trim() === '' ? [] : readHosts(item.nameServers);
      if (isRefusal(servers)) return servers;
      drafts.push({
        ...draftOf(item, account.linked, servers),
        payBy: payByAt(request.payBy, account.id),
        capMinor: sum,
      });
    }
    return changing(deps, async (tx, { at }) => {
      const runId = randomUUID();
      const put = await insertRegistrations(tx, runId, key, drafts, at);
      const left = drafts.find(({ ascii }) => !put.includes(ascii));
      if (left) {
        await deleteRegistrations(tx, runId);
        return refuseLater(left.unicode);
      }
      return runId;
    });
  },
  weightOfRegistering,
);

const refuseLater = (unicode: string) =>
  refuse('registration-under-way', `${unicode} is being registered already. Look at what is under way.`);

function draftOf(
  item: ReviewItem,
  isLinked: boolean,
  nameServers: readonly string[],
): Omit<RegistrationDraft, 'payBy' | 'capMinor'> {
  const { ascii, unicode, ending, typed, purpose, note } = item.wanted;
  return {
    ascii,
    unicode,
    ending,
    typed,
    purpose,
    note,
    accountId: item.accountId as number,
    years: item.years,
    autoRenew: item.autoRenew,
    privacy: item.privacy,
    nameServers,
    holderMail: item.holderMail,
    byHand: !isLinked,
    orderId: `NL-${randomUUID()}`,
    quotedMinor: item.price?.total.minor ?? null,
    currency: item.price?.total.currency ?? '',
    ownRenewalMinor: item.price?.isOwnPrice ? (item.price.renewal?.minor ?? null) : null,
  };
}

function payByAt(chosen: readonly string[] = [], accountId: number): string | null {
  const one = chosen.find((text) => text.startsWith(`${accountId} `));
  return one === undefined ? null : one.slice(one.indexOf(' ') + 1).trim() || null;
}

/** The names of one run, as they stand. */
export function registrationRun(deps: Deps, runId: string): Promise<RegistrationRow[]> {
  return selectRegistrations(deps.database, runId);
}

const MOST_SETTLED = 50;

/** What is under way, and what was settled last. */
export async function registrations(deps: Deps): Promise<{ open: RegistrationRow[]; settled: RegistrationRow[] }> {
  const [open, settled] = await Promise.all([
    selectOpenRegistrations(deps.database),
    selectSettledRegistrations(deps.database, MOST_SETTLED),
  ]);
  return { open, settled };
}
