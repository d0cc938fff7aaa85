import { describe, expect, test } from 'vitest';
import { AREAS, COMMANDS, type Command, isInScope, type Member, mayRole, ROLES, refuseCommand } from '.';

/**
 * Who may do what, command by command: owner, trader, bookkeeper, viewer. Written out beside the rules, so that no change of a rule opens a
 * command that nobody meant to open.
 */
const TABLE = `
  editNames             o t - -
  patchName             o t - -
  confirmSwitch         o t - -
  requestSwitch         o t - -
  changeNameServers     o t - -
  undo                  o t - -
  undoLast              o t - -
  sayEnds               o t - -
  sayMeans              o t - -
  sayPrices             o t - -
  chooseRows            o t - -
  dropImport            o t - -
  writeImport           o t - -
  importAtOnce          o t - -
  takeIn                o t - -
  readImport            o t - -
  mendRow               o t - -
  readAccount           o t - -
  takeInMails           o t - -
  takeInPasted          o t - -
  settleMail            o t - -
  askNear               o t - -
  queueChecks           o t - -
  dismissDifferences    o t - -
  takeOver              o t - -
  takeRenewed           o t - -
  pasteRecord           o t - -
  lookUpList            o t - -
  watchNames            o t - -
  unwatchName           o t - -
  seenNames             o t b v
  sendReminders          o - - -
  withdrawLinks         o - - -
  saveView              o t b v
  dropView              o t b v
  planRenewal           o t - -
  changeRenewal         o t - -
  moveRenewal           o t - -
  payRunBy              o t - -
  priceRun              o t - -
  startRun              o t - -
  stopRun               o t - -
  finishRun             o t - -
  leaveItem             o t - -
  sendReportsAgain      o t - -
  confirmRenewal        o t - -
  decideRescue          o t - -
  dropNames             o t - -
  keepAfterAll          o t - -
  refundName            o t - -
  startTransfers        o t - -
  tellTransfer          o t - -
  agreeToPrice          o t - -
  noteCounterOffer      o t - -
  stayAfterAll          o t - -
  stopTransfer          o t - -
  takeArrival           o t - -
  codeOfTransfer        o t - -
  rejectForeign         o t - -
  settleForeign         o t - -
  bringZone             o t - -
  registerNames         o t - -
  tellRegistration      o t - -
  orderAtRelease        o t - -
  stopRelease           o t - -
  beginApproach         o t - -
  moveApproach          o t - -
  sayApproach           o t - -
  tellAddress           o t - -
  bringInComingFree     o t - -
  saveIdeas             o t - -
  askAgain              o t - -
  pauseIdeas            o t - -
  removeIdeas           o t - -
  lookAtUse             o t - -
  wantNames             o t - -
  unwantNames           o t - -
  saveListings          o t - -
  sendListings          o t - -
  withdrawListingsById  o t - -
  markSeenLive          o t - -
  placeProof            o t - -
  proveListing          o t - -
  lookForProof          o t - -
  changeReserve         o t - -
  enterBid              o t - -
  offerToHighest        o t - -
  lookForWindows        o t - -
  blockSender           o t - -
  unblockSender         o t - -
  takeDeposit           o t - -
  returnDeposit         o t - -
  answerOffer           o t - -
  buyerAnswers          o t - -
  enterOffer            o t - -
  saveAnswerRule        o t - -
  stepSale              o t - -
  handOver              o t - -
  transferCode          o t - -
  bringInSales          o t - -
  saveSaleOdds          o t - -
  saveAssumptions       o t - -
  takeAssumptions       o t - -
  dropAssumptions       o t - -
  keepForecast          o t - -
  dropForecast          o t - -
  addEntry              o - b -
  correctEntry          o - b -
  changeFunds           o - b -
  importRates           o - b -
  saveRate              o - b -
  saveRatesSource       o - b -
  saveAccount           o - - -
  removeAccount         o - - -
  savePrice             o - - -
  saveRise              o - - -
  removePrice           o - - -
  importPrices          o - - -
  saveLink              o - - -
  removeLink            o - - -
  testLink              o - - -
  saveMarketplace       o - - -
  saveMarketplaceLink   o - - -
  removeMarketplaceLink o - - -
  testMarketplace       o - - -
  savePolicy            o - - -
  removePolicy          o - - -
  saveRegistryFee       o - - -
  saveShop              o - - -
  saveShopTexts         o - - -
  saveRecordServers     o - - -
  fetchBootstrap        o - - -
  saveMailbox           o - - -
  saveReceiving         o - - -
  readMailbox           o - - -
  saveReminders         o - - -
  sendTestMail          o - - -
  makeCalendarFeed      o - - -
  withdrawCalendarFeed  o - - -
  answerFirst           o - - -
  saveOffice            o - - -
  addWebhook            o - - -
  removeWebhook         o - - -
  renewSecret           o - - -
  setWebhookPaused      o - - -
  makeBackup            o - - -
  restoreBackup         o - - -
  emptyLedger           o - - -
  openLedger            o - - -
  discardDemo           o - - -
  letDayPass            o - - -
  setFault              o - - -
  askForName            o - - -
  confirmHolderMail     o - - -
  invite                o - - -
  inviteAgain           o - - -
  changeMember          o - - -
  endMember             o - - -
  endSessionsOf         o - - -
  addProgram            o - - -
  setSecondPerson        o - - -
  settleConfirmation     o t b v
`;

const member = (role: Member['role'], scope: Member['scope'] = null): Member => ({
  kind: scope === null ? 'person' : 'program',
  id: 7,
  name: 'Odo Quill',
  role,
  scope,
  monthlyLimitMinor: null,
});

const written = TABLE.trim()
  .split('\n')
  .map((line) => line.trim().split(/\s+/));

test('every command stands in the table, and nothing else does', () => {
  expect(written.map(([name]) => name)).toEqual(Object.keys(COMMANDS));
});

test.each(written)('%s is for %s %s %s %s', (name, ...marks) => {
  expect(ROLES.map((role) => (mayRole(role, name as Command) ? role[0] : '-'))).toEqual(marks);
  expect(ROLES.map((role) => (refuseCommand(member(role), name as Command) === null ? role[0] : '-'))).toEqual(marks);
});

describe('who is held to no role', () => {
  test('does everything where nobody is set up, and by the program’s own work', () => {
    for (const name of Object.keys(COMMANDS) as Command[]) {
      expect(refuseCommand({ kind: 'office' }, name)).toBeNull();
      expect(refuseCommand({ kind: 'itself' }, name)).toBeNull();
    }
  });

  test('does nothing as a stranger', () => {
    for (const name of Object.keys(COMMANDS) as Command[])
      expect(refuseCommand({ kind: 'stranger' }, name)).toMatchObject({ code: 'sign-in-needed' });
  });
});

test('a program is held to its areas, however much its role may', () => {
  for (const name of Object.keys(COMMANDS) as Command[]) {
    expect(refuseCommand(member('owner', []), name)).toMatchObject({ code: 'scope-lacking' });
    for (const area of AREAS)
      expect(refuseCommand(member('owner', [area]), name) === null).toBe(COMMANDS[name].area === area);
    expect(isInScope(null, name)).toBe(true);
  }
});

test('a refusal says who may', () => {
  expect(refuseCommand(member('viewer'), 'startRun')?.message).toBe(
    'A viewer may not start runs. Ask an owner or a trader.',
  );
  expect(refuseCommand(member('trader'), 'addEntry')?.message).toBe(
    'A trader may not keep the books. Ask an owner or a bookkeeper.',
  );
});
