import { type Refusal, refuse } from '../refusal';
import { type Area, isMember, type Role, type Who } from './who';

/** Who acts in each part of the work. Reading is open to everybody who is set up. */
const ROLES_IN: Readonly<Record<Area, readonly Role[]>> = {
  names: ['owner', 'trader'],
  renewing: ['owner', 'trader'],
  moving: ['owner', 'trader'],
  acquiring: ['owner', 'trader'],
  selling: ['owner', 'trader'],
  plans: ['owner', 'trader'],
  books: ['owner', 'bookkeeper'],
  setup: ['owner'],
  people: ['owner'],
  own: ['owner', 'trader', 'bookkeeper', 'viewer'],
};

const inArea =
  (area: Area) =>
  (says: string): { readonly area: Area; readonly says: string } => ({ area, says });
const names = inArea('names');
const renewing = inArea('renewing');
const moving = inArea('moving');
const acquiring = inArea('acquiring');
const selling = inArea('selling');
const plans = inArea('plans');
const books = inArea('books');
const setup = inArea('setup');
const people = inArea('people');
const own = inArea('own');

/** Every command of the program: the part of the work it belongs to, and what it is called in a sentence. */
export const COMMANDS = {
  editNames: names('edit names'),
  patchName: names('edit names'),
  confirmSwitch: names('confirm switches'),
  requestSwitch: names('ask for switches'),
  changeNameServers: names('change name servers'),
  undo: names('undo'),
  undoLast: names('undo'),
  sayEnds: names('say when terms end'),
  sayMeans: names('say by what accounts pay'),
  sayPrices: names('say prices'),
  chooseRows: names('bring in lists'),
  dropImport: names('bring in lists'),
  writeImport: names('bring in lists'),
  importAtOnce: names('bring in lists'),
  takeIn: names('bring in lists'),
  readImport: names('bring in lists'),
  mendRow: names('bring in lists'),
  readAccount: names('read accounts'),
  takeInMails: names('take in mails'),
  takeInPasted: names('take in mails'),
  settleMail: names('settle mails'),
  askNear: names('ask registrars'),
  queueChecks: names('check records'),
  dismissDifferences: names('settle differences'),
  takeOver: names('settle differences'),
  takeRenewed: names('settle differences'),
  pasteRecord: names('keep records'),
  lookUpList: names('look up records'),
  watchNames: names('watch names'),
  unwatchName: names('watch names'),
  seenNames: own('take note of reminders'),
  sendReminders: setup('send reminders'),
  withdrawLinks: setup('withdraw links of reminders'),
  saveView: own('save views'),
  dropView: own('save views'),

  planRenewal: renewing('plan renewals'),
  changeRenewal: renewing('plan renewals'),
  moveRenewal: renewing('plan renewals'),
  payRunBy: renewing('plan renewals'),
  priceRun: renewing('plan renewals'),
  startRun: renewing('start runs'),
  stopRun: renewing('stop runs'),
  finishRun: renewing('finish runs'),
  leaveItem: renewing('settle runs'),
  sendReportsAgain: renewing('send restore reports'),
  confirmRenewal: renewing('confirm renewals'),
  decideRescue: renewing('decide rescues'),
  dropNames: renewing('drop names'),
  keepAfterAll: renewing('keep names'),
  refundName: renewing('give names back'),

  startTransfers: moving('start transfers'),
  tellTransfer: moving('settle transfers'),
  agreeToPrice: moving('settle transfers'),
  noteCounterOffer: moving('settle transfers'),
  stayAfterAll: moving('settle transfers'),
  stopTransfer: moving('stop transfers'),
  takeArrival: moving('settle transfers'),
  codeOfTransfer: moving('see codes of transfers'),
  rejectForeign: moving('reject transfers'),
  settleForeign: moving('settle transfers'),
  bringZone: moving('bring zones'),

  registerNames: acquiring('register names'),
  tellRegistration: acquiring('settle registrations'),
  orderAtRelease: acquiring('order names at release'),
  stopRelease: acquiring('stop orders at release'),
  beginApproach: acquiring('approach holders'),
  moveApproach: acquiring('approach holders'),
  sayApproach: acquiring('approach holders'),
  tellAddress: acquiring('approach holders'),
  bringInComingFree: acquiring('bring in names coming free'),
  saveIdeas: acquiring('ask for ideas'),
  askAgain: acquiring('ask for ideas'),
  pauseIdeas: acquiring('ask for ideas'),
  removeIdeas: acquiring('ask for ideas'),
  lookAtUse: acquiring('look at use'),
  wantNames: acquiring('keep a shortlist'),
  unwantNames: acquiring('keep a shortlist'),

  saveListings: selling('list names'),
  sendListings: selling('list names'),
  withdrawListingsById: selling('withdraw listings'),
  markSeenLive: selling('list names'),
  placeProof: selling('prove listings'),
  proveListing: selling('prove listings'),
  lookForProof: selling('prove listings'),
  changeReserve: selling('hold auctions'),
  enterBid: selling('hold auctions'),
  offerToHighest: selling('sell names'),
  lookForWindows: selling('look for windows'),
  blockSender: selling('block senders'),
  unblockSender: selling('block senders'),
  takeDeposit: selling('take down deposits'),
  returnDeposit: selling('take down deposits'),
  answerOffer: selling('answer offers'),
  buyerAnswers: selling('answer offers'),
  enterOffer: selling('note offers'),
  saveAnswerRule: selling('answer offers'),
  stepSale: selling('see sales through'),
  handOver: selling('hand names over'),
  transferCode: selling('see codes of sales'),
  bringInSales: selling('bring in sales'),

  saveSaleOdds: plans('assume'),
  saveAssumptions: plans('assume'),
  takeAssumptions: plans('assume'),
  dropAssumptions: plans('assume'),
  keepForecast: plans('keep forecasts'),
  dropForecast: plans('keep forecasts'),

  addEntry: books('keep the books'),
  correctEntry: books('keep the books'),
  changeFunds: books('note payments into accounts'),
  importRates: books('keep rates'),
  saveRate: books('keep rates'),
  saveRatesSource: books('keep rates'),

  saveAccount: setup('set up accounts'),
  removeAccount: setup('set up accounts'),
  savePrice: setup('set up price lists'),
  saveRise: setup('set up price lists'),
  removePrice: setup('set up price lists'),
  importPrices: setup('set up price lists'),
  saveLink: setup('set up links'),
  removeLink: setup('set up links'),
  testLink: setup('set up links'),
  saveMarketplace: setup('set up marketplaces'),
  saveMarketplaceLink: setup('set up marketplaces'),
  removeMarketplaceLink: setup('set up marketplaces'),
  testMarketplace: setup('set up marketplaces'),
  savePolicy: setup('set up policies'),
  removePolicy: setup('set up policies'),
  saveRegistryFee: setup('set up policies'),
  saveShop: setup('set up the shop window'),
  saveShopTexts: setup('set up the shop window'),
  saveRecordServers: setup('set up records'),
  fetchBootstrap: setup('set up records'),
  saveMailbox: setup('set up mail'),
  saveReceiving: setup('set up mail'),
  readMailbox: setup('set up mail'),
  saveReminders: setup('set up mail'),
  sendTestMail: setup('set up mail'),
  makeCalendarFeed: setup('set up the calendar'),
  withdrawCalendarFeed: setup('set up the calendar'),
  answerFirst: setup('set up the office'),
  saveOffice: setup('set up the office'),
  addWebhook: setup('set up programs'),
  removeWebhook: setup('set up programs'),
  renewSecret: setup('set up programs'),
  setWebhookPaused: setup('set up programs'),
  makeBackup: setup('back up the ledger'),
  restoreBackup: setup('restore the ledger'),
  emptyLedger: setup('empty the ledger'),
  openLedger: setup('open another ledger'),
  discardDemo: setup('open another ledger'),
  letDayPass: setup('move the practice world'),
  setFault: setup('move the practice world'),
  askForName: setup('move the practice world'),
  confirmHolderMail: setup('move the practice world'),

  invite: people('invite people'),
  inviteAgain: people('invite people'),
  changeMember: people('change what people may do'),
  endMember: people('end somebody’s access'),
  endSessionsOf: people('end somebody’s sessions'),
  addProgram: people('let programs in'),
  setSecondPerson: people('change when a second person is asked'),
  settleConfirmation: own('settle what others ask for'),
} as const satisfies Record<string, { readonly area: Area; readonly says: string }>;

export type Command = keyof typeof COMMANDS;

/** For whom something is done. */
export interface Asker {
  /** Who asks; without it, whoever sits at the machine. */
  readonly who?: Who;
  /** The command that is being carried out for somebody who is set up; what it does by other commands is part of it. */
  readonly command?: Command;
}

/** Whether somebody of a role may carry out a command. */
export function mayRole(role: Role, command: Command): boolean {
  return ROLES_IN[COMMANDS[command].area].includes(role);
}

/** Whether a program that is held to `scope` may act in the area of a command. */
export function isInScope(scope: readonly Area[] | null, command: Command): boolean {
  return scope === null || scope.includes(COMMANDS[command].area);
}

/** Why `who` may not carry out a command; `null` when nothing stands against it. The one place where that is decided. */
export function refuseCommand(who: Who, command: Command): Refusal | null {
  if (who.kind === 'stranger') return refuse('sign-in-needed', 'Sign in first.');
  if (!isMember(who)) return null;
  const { area, says } = COMMANDS[command];
  if (!mayRole(who.role, command))
    return refuse('role-lacking', `A ${who.role} may not ${says}. Ask ${withArticle(ROLES_IN[area])}.`);
  if (!isInScope(who.scope, command))
    return refuse('scope-lacking', `This token is not for ${area}. Ask an owner for one that is.`);
  return null;
}

/** “an owner or a trader”. */
function withArticle(roles: readonly Role[]): string {
  return roles.map((role) => `${/^[aeiou]/.test(role) ? 'an' : 'a'} ${role}`).join(' or ');
}
