'use server';
import { type Refusal, refuse } from '@/core/refusal';
import { removeAccount, saveAccount } from '@/usecases/accounts/accounts';
import { importPrices, type ListedChange, previewPrices, removePrice, savePrice } from '@/usecases/accounts/prices';
import { makeCalendarFeed, withdrawCalendarFeed } from '@/usecases/calendar/feed';
import { compute } from '@/usecases/computing';
import { deps } from '@/usecases/deps';
import { removeLink, saveLink, testLink } from '@/usecases/links/links';
import { readAccount } from '@/usecases/links/readAccount';
import { readMailbox, saveMailbox, saveReceiving } from '@/usecases/mails/mailbox';
import {
  removeMarketplaceLink,
  saveMarketplace,
  saveMarketplaceLink,
  testMarketplace,
} from '@/usecases/marketplaces/marketplaces';
import { removePolicy, savePolicy, saveRegistryFee } from '@/usecases/policies/policies';
import { importRates, previewRates, type RatesPreview, saveRate, saveRatesSource } from '@/usecases/rates/rates';
import { fetchBootstrap, saveRecordServers } from '@/usecases/records/servers';
import { withdrawLinks } from '@/usecases/reminders/remind';
import { saveReminders, sendTestMail } from '@/usecases/reminders/settings';
import { saveAnswerRule } from '@/usecases/selling/offers';
import { saveOffice } from '@/usecases/settings';

export async function saveAccountAction(id: number | null, input: unknown): Promise<number | Refusal> {
  return saveAccount(deps(), id, input);
}

export async function removeAccountAction(id: number): Promise<true | Refusal> {
  return removeAccount(deps(), id);
}

export async function savePriceAction(input: unknown): Promise<true | Refusal> {
  return savePrice(deps(), input);
}

export async function removePriceAction(id: number): Promise<true | Refusal> {
  return removePrice(deps(), id);
}

/** What a price list would bring; nothing is written. */
export async function previewPricesAction(
  accountId: number,
  text: string,
  source: string,
): Promise<ListedChange[] | Refusal> {
  return previewPrices(deps(), accountId, new TextEncoder().encode(text), source);
}

/** Brings in a price list; answers how many prices it held. */
export async function importPricesAction(accountId: number, text: string, source: string): Promise<number | Refusal> {
  return importPrices(deps(), accountId, new TextEncoder().encode(text), source);
}

export async function savePolicyAction(input: unknown): Promise<true | Refusal> {
  return savePolicy(deps(), input);
}

export async function removePolicyAction(ending: string): Promise<true | Refusal> {
  return removePolicy(deps(), ending);
}

export async function saveRegistryFeeAction(from: string, minor: number, currency: string): Promise<true | Refusal> {
  return saveRegistryFee(deps(), from, minor, currency);
}

export async function saveOfficeAction(input: unknown): Promise<true | Refusal> {
  return saveOffice(deps(), input);
}

export async function saveLinkAction(input: unknown): Promise<true | Refusal> {
  return saveLink(deps(), input);
}

export async function removeLinkAction(accountId: number): Promise<true | Refusal> {
  return removeLink(deps(), accountId);
}

/** Logs in at the registrar; answers what it calls itself. */
export async function testLinkAction(accountId: number): Promise<string | Refusal> {
  return testLink(deps(), accountId);
}

/** Reads the whole account by its link; answers the import that shows what differs. */
export async function readAccountAction(accountId: number): Promise<string | Refusal> {
  return readAccount(deps(), accountId);
}

export async function saveRemindersAction(input: unknown): Promise<true | Refusal> {
  return saveReminders(deps(), input);
}

/** Sends a mail that says that mails arrive; answers to whom. */
export async function testMailAction(): Promise<string | Refusal> {
  return sendTestMail(deps());
}

/** Makes a new address for the calendar; answers its token, once. */
export async function makeCalendarFeedAction(): Promise<string | Refusal> {
  return makeCalendarFeed(deps());
}

export async function withdrawCalendarFeedAction(): Promise<true | Refusal> {
  return withdrawCalendarFeed(deps());
}

/** Withdraws the links in all mails that were sent; answers how many. */
export async function withdrawLinksAction(): Promise<number | Refusal> {
  return withdrawLinks(deps());
}

/** Sends what is due now; answers of how many names. */
export async function sendRemindersAction(): Promise<number | Refusal> {
  const own = deps();
  try {
    return await compute(own, 'sendReminders');
  } catch (error) {
    own.log.warn({ err: error }, 'reminders could not be mailed');
    return refuse('mail-failed', 'The mail server did not take it. Check server, port, user and password.');
  }
}

export async function saveRecordServersAction(input: unknown): Promise<true | Refusal> {
  return saveRecordServers(deps(), input);
}

/** Fetches a bootstrap file; answers its date. */
export async function fetchBootstrapAction(address: string): Promise<string | Refusal> {
  return fetchBootstrap(deps(), address);
}

export async function saveMarketplaceAction(input: unknown): Promise<number | Refusal> {
  return saveMarketplace(deps(), input);
}

export async function saveMarketplaceLinkAction(input: unknown): Promise<true | Refusal> {
  return saveMarketplaceLink(deps(), input);
}

export async function removeMarketplaceLinkAction(marketplaceId: number): Promise<true | Refusal> {
  return removeMarketplaceLink(deps(), marketplaceId);
}

export async function testMarketplaceAction(marketplaceId: number): Promise<string | Refusal> {
  return testMarketplace(deps(), marketplaceId);
}

export async function answerRuleAction(input: unknown): Promise<true | Refusal> {
  return saveAnswerRule(deps(), input);
}

/** What a file of rates would bring; nothing is written. */
export async function previewRatesAction(input: unknown): Promise<RatesPreview | Refusal> {
  return previewRates(deps(), input);
}

/** Brings in a file of rates; answers how many. */
export async function importRatesAction(input: unknown): Promise<number | Refusal> {
  return importRates(deps(), input);
}

/** Sets where rates are read daily; answers how many were read at once. */
export async function saveRatesSourceAction(input: unknown): Promise<number | Refusal> {
  return saveRatesSource(deps(), input);
}

export async function saveRateAction(input: unknown): Promise<true | Refusal> {
  return saveRate(deps(), input);
}

export async function saveMailboxAction(input: unknown): Promise<true | Refusal> {
  return saveMailbox(deps(), input);
}

/** Reads the mailbox now; answers how many mails are new. */
export async function readMailboxAction(): Promise<number | Refusal> {
  return readMailbox(deps());
}

export async function saveReceivingAction(input: unknown): Promise<true | Refusal> {
  return saveReceiving(deps(), input);
}
