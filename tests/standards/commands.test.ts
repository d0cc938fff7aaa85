import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { expect, test } from 'vitest';
import { OPENAPI } from '@/app/api/openapi';

/** Every command of a screen, and by which address another program gives it. */
const ROUTES: Readonly<Record<string, string>> = {
  saveIdeasAction: 'POST /idea-sets',
  askAgainAction: 'POST /idea-sets/{id}/ask',
  pauseAction: 'POST /idea-sets/{id}/pause',
  removeIdeasAction: 'DELETE /idea-sets/{id}',
  detailAction: 'GET /candidates/{name}',
  lookAtUseAction: 'GET /candidates/{name}/use',
  watchCandidateAction: 'POST /watches',
  askNearAction: 'POST /candidates/{name}/near',
  wantAction: 'POST /shortlist',
  unwantAction: 'DELETE /shortlist/{name}',
  reviewAction: 'POST /registrations/review',
  registerAction: 'POST /registrations',
  tellRegistrationAction: 'POST /registrations/tell',
  tellAddressAction: 'POST /holder-addresses',
  beginApproachAction: 'POST /approaches',
  sayApproachAction: 'POST /approaches/lines',
  moveApproachAction: 'POST /approaches/moves',
  orderAtReleaseAction: 'POST /release-orders',
  stopReleaseAction: 'POST /release-orders/{id}/stop',
  releaseTriesAction: 'GET /release-orders/{id}/tries',
  bringInComingFreeAction: 'POST /coming-free',
  checkNamesAction: 'POST /checks',
  aboutDroppingAction: 'GET /drops/hanging',
  dropAction: 'POST /drops',
  keepAfterAllAction: 'POST /drops/keep',
  seenZoneAction: 'GET /records/{name}/zone',
  editNamesAction: 'POST /edits',
  changeFundsAction: 'POST /accounts/{accountId}/funds',
  refundAction: 'POST /refunds',
  planRenewalAction: 'POST /runs',
  changeNameServersAction: 'POST /name-servers',
  requestSwitchAction: 'POST /switches',
  confirmSwitchAction: 'POST /switches/confirm',
  undoAction: 'POST /history/{id}/undo',
  undoLastAction: 'POST /history/undo-last',
  addEntryAction: 'POST /entries',
  correctEntryAction: 'POST /entries/{id}/correct',
  saveViewAction: 'POST /views',
  dropViewAction: 'DELETE /views/{id}',
  saveRiseAction: 'PUT /price-rises',
  checkProgressAction: 'GET /checks',
  takeOverAction: 'POST /differences/take-over',
  dismissAction: 'POST /differences/dismiss',
  pasteRecordAction: 'POST /records',
  watchAction: 'POST /watches',
  unwatchAction: 'DELETE /watches/{name}',
  lookUpListAction: 'POST /look-up',
  changeRenewalAction: 'PUT /runs/{id}',
  moveRenewalAction: 'POST /runs/{id}/move',
  confirmRenewalAction: 'POST /runs/{id}/confirm',
  priceRunAction: 'POST /runs/{id}/prices',
  runProgressAction: 'GET /runs/{id}/progress',
  startRunAction: 'POST /runs/{id}/start',
  sendReportsAgainAction: 'POST /runs/{id}/reports',
  leaveItemAction: 'POST /runs/{id}/items/{name}/leave',
  payRunByAction: 'POST /runs/{id}/pay-by',
  stopRunAction: 'POST /runs/{id}/stop',
  finishRunAction: 'POST /runs/{id}/finish',
  compareTermsAction: 'GET /runs/{id}/terms',
  decideRescueAction: 'POST /rescue/decisions',
  saveSaleOddsAction: 'PUT /rescue/odds',
  saveAssumptionsAction: 'POST /prospects/assumption-sets',
  takeAssumptionsAction: 'PUT /prospects/assumptions',
  dropAssumptionsAction: 'DELETE /prospects/assumption-sets/{id}',
  keepForecastAction: 'POST /prospects/forecasts',
  dropForecastAction: 'DELETE /prospects/forecasts/{id}',
  saveListingsAction: 'POST /listings',
  sendListingsAction: 'POST /listings/send',
  withdrawAction: 'POST /listings/withdraw',
  seenLiveAction: 'POST /listings/seen-live',
  proveAction: 'POST /listings/{listingId}/prove',
  enterOfferAction: 'POST /offers',
  answerOfferAction: 'POST /offers/{threadId}/answer',
  buyerAnswersAction: 'POST /offers/{threadId}/buyer',
  enterBidAction: 'POST /auctions/{auctionId}/bids',
  changeReserveAction: 'PUT /auctions/{auctionId}/reserve',
  offerToHighestAction: 'POST /auctions/{auctionId}/offer-to-highest',
  stepSaleAction: 'POST /sales/{saleId}/steps',
  handOverAction: 'POST /sales/{saleId}/hand-over',
  transferCodeAction: 'POST /sales/{saleId}/code',
  lookAgainAction: 'POST /selling/follow',
  bringInSalesAction: 'POST /past-sales',
  placeProofAction: 'POST /listings/{listingId}/proof',
  lookForProofAction: 'POST /listings/{id}/proof/look',
  saveAccountAction: 'PUT /accounts/{id}',
  removeAccountAction: 'DELETE /accounts/{id}',
  savePriceAction: 'POST /prices',
  removePriceAction: 'DELETE /prices/{id}',
  previewPricesAction: 'POST /accounts/{id}/price-list/preview',
  importPricesAction: 'POST /accounts/{id}/price-list',
  savePolicyAction: 'PUT /policies/{ending}',
  removePolicyAction: 'DELETE /policies/{ending}',
  saveRegistryFeeAction: 'POST /registry-fees',
  saveOfficeAction: 'PUT /office',
  saveLinkAction: 'PUT /accounts/{accountId}/link',
  removeLinkAction: 'DELETE /accounts/{id}/link',
  testLinkAction: 'POST /accounts/{id}/link/test',
  readAccountAction: 'POST /accounts/{id}/link/read',
  saveRecordServersAction: 'PUT /record-servers',
  fetchBootstrapAction: 'POST /record-servers/bootstrap',
  saveMarketplaceAction: 'PUT /marketplaces/{id}',
  saveMarketplaceLinkAction: 'PUT /marketplaces/{marketplaceId}/link',
  removeMarketplaceLinkAction: 'DELETE /marketplaces/{id}/link',
  testMarketplaceAction: 'POST /marketplaces/{id}/link/test',
  answerRuleAction: 'PUT /answer-rule',
  previewRatesAction: 'POST /rates/file/preview',
  importRatesAction: 'POST /rates/file',
  saveRatesSourceAction: 'PUT /rates/source',
  saveRateAction: 'POST /rates',
  seenNamesAction: 'POST /seen',
  mailConfirmedAction: 'POST /edits',
  rejectForeignAction: 'POST /foreign-transfers/{id}/reject',
  settleForeignAction: 'POST /foreign-transfers/{id}/settle',
  startTransfersAction: 'POST /transfers',
  tellTransfersAction: 'POST /transfers/{id}/tell',
  stopTransferAction: 'POST /transfers/{id}/stop',
  agreeToPriceAction: 'POST /transfers/{id}/agree',
  codeOfTransferAction: 'POST /transfers/{id}/code',
  zonesOfTransferAction: 'GET /transfers/{id}/zones',
  bringZoneAction: 'PUT /transfers/{id}/zone',
  noteCounterOfferAction: 'POST /transfers/{id}/counter-offer',
  stayAfterAllAction: 'POST /transfers/{id}/stay',
  takeArrivalAction: 'POST /transfers/arrivals',
  sayEndsAction: 'POST /unknown/ends',
  sayPricesAction: 'POST /unknown/prices',
  sayMeansAction: 'POST /unknown/means',
  sayAutoRenewAction: 'POST /switches/confirm',
  writeImportAction: 'POST /names/import',
  pasteMailAction: 'POST /mails',
  settleMailAction: 'POST /mails/{mailId}/settle',
  addWebhookAction: 'POST /webhooks',
  renewSecretAction: 'POST /webhooks/{id}/secret',
  setWebhookPausedAction: 'POST /webhooks/{id}/pause',
  removeWebhookAction: 'DELETE /webhooks/{id}',
  inviteAction: 'POST /people',
  inviteAgainAction: 'POST /people/{id}/invitation',
  changeMemberAction: 'PUT /people/{id}',
  endMemberAction: 'DELETE /people/{id}',
  endSessionsAction: 'POST /people/{id}/end-sessions',
  addProgramAction: 'POST /people/programs',
  settleConfirmationAction: 'POST /confirmations/{id}',
  setSecondPersonAction: 'PUT /people/second-person',
  saveShopAction: 'PUT /shop',
  saveShopTextsAction: 'PUT /shop/texts/{language}',
  blockSenderAction: 'POST /shop/blocked',
  unblockSenderAction: 'DELETE /shop/blocked/{sender}',
  takeDepositAction: 'POST /shop/deposits/{letterId}/take',
  returnDepositAction: 'POST /shop/deposits/{letterId}/return',
  lookForWindowsAction: 'POST /shop/looks',
};

/** What only a screen has, and why. */
const SCREEN_ONLY: Readonly<Record<string, string>> = {
  openLedgerAction: 'which of the two ledgers is open decides whom a program talks to: a person says it',
  discardDemoAction: 'the same',
  emptyLedgerAction: 'a person types what is lost by it',
  answerFirstAction: 'the first questions of a start, later PUT /office',
  readImportAction: 'a step of a preview; a program sends a list with dryRun',
  mendRowAction: 'a step of a preview',
  importSummaryAction: 'a step of a preview',
  importRowsAction: 'a step of a preview',
  chooseRowsAction: 'a step of a preview',
  dropImportAction: 'a step of a preview',
  runOfNameAction: 'stands in GET /runs',
  pastedNamesAction: 'a field of a form',
  seenAction: 'the button behind a link in a mail',
  carryOnAction: 'every command goes on by itself, and the jobs each minute',
  saveRemindersAction: 'holds the password of the mail server',
  saveMailboxAction: 'holds the password of the mailbox',
  readMailboxAction: 'the jobs read it; a program brings mails by POST /mails',
  saveReceivingAction: 'opens a port of the machine',
  testMailAction: 'belongs to the form of the mail server',
  sendRemindersAction: 'the jobs send them',
  makeCalendarFeedAction: 'shows its address once',
  withdrawCalendarFeedAction: 'belongs to it',
  withdrawLinksAction: 'of mails that were sent',
  beginPasskeyAction: 'a passkey is made in a browser',
  addPasskeyAction: 'the same',
  removePasskeyAction: 'how one signs in is changed by oneself, signed in',
  enrolAction: 'the same',
  setPassPhraseAction: 'the same',
  newRecoveryCodesAction: 'the same',
  endOwnSessionsAction: 'a program has no sessions',
  letDayPassAction: 'the practice world has an interface of its own',
  setFaultAction: 'the same',
  askForNameAction: 'the same',
  confirmHolderMailAction: 'the same',
};

const described = new Set(
  Object.entries(OPENAPI.paths as Record<string, object>).flatMap(([path, methods]) =>
    Object.keys(methods).map((method) => `${method.toUpperCase()} ${path}`),
  ),
);

test('every command of a screen has its address, or its reason for having none', () => {
  const files = readdirSync('src/app', { recursive: true, encoding: 'utf8' }).filter((file) =>
    /(^|\/)actions\.ts$/.test(file),
  );
  const actions = files.flatMap((file) =>
    [...readFileSync(join('src/app', file), 'utf8').matchAll(/export async function (\w+)/g)].map(
      ([, name]) => name as string,
    ),
  );
  expect(actions.length).toBeGreaterThan(100);
  expect(actions.filter((name) => !(name in ROUTES) && !(name in SCREEN_ONLY))).toEqual([]);
  // And none of either list has gone from the screens.
  expect([...Object.keys(ROUTES), ...Object.keys(SCREEN_ONLY)].filter((name) => !actions.includes(name))).toEqual([]);
});

test.each(Object.entries(ROUTES))('%s: %s is described', (_, route) => {
  expect(described).toContain(route);
});

/** Whether a schema shows money, or a name in it, somewhere. */
function shows(schema: unknown, name: string, seen = new Set<string>()): boolean {
  if (typeof schema !== 'object' || schema === null) return false;
  const { $ref } = schema as { $ref?: string };
  if ($ref !== undefined) {
    const of = $ref.split('/').at(-1) as string;
    if (of === name) return true;
    if (seen.has(of)) return false;
    seen.add(of);
    return shows((OPENAPI.components.schemas as Record<string, unknown>)[of], name, seen);
  }
  return Object.entries(schema).some(([key, value]) => key === name || shows(value, name, seen));
}

test('each answer that shows money says what it rests on', () => {
  const silent = Object.entries(OPENAPI.paths as Record<string, Record<string, { responses: Record<string, unknown> }>>)
    .flatMap(([path, methods]) =>
      Object.entries(methods).map(([method, { responses }]) => {
        const { default: _, ...answers } = responses;
        return { at: `${method.toUpperCase()} ${path}`, answers };
      }),
    )
    .filter(({ answers }) => shows(answers, 'Money') && !shows(answers, 'restsOn'))
    .map(({ at }) => at);
  expect(silent).toEqual([]);
});
