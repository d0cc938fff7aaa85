import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import 'reflect-metadata';
import { beforeAll, expect, test } from 'vitest';
import { COMMANDS, type Command, type Member, mayRole, ROLES } from '@/core/people';
import { madeCommands } from './registry';

const files = (folder: string): string[] =>
  readdirSync(folder, { withFileTypes: true }).flatMap((entry) =>
    entry.isDirectory() ? files(join(folder, entry.name)) : [join(folder, entry.name)],
  );
const sources = (folder: string) => files(folder).filter((file) => /(?<!\.test)\.ts$/.test(file));

beforeAll(async () => {
  for (const file of sources('src/usecases')) await import(join(process.cwd(), file));
}, 60_000);

test('every command of the table is made, once, under the name that it has in the code', () => {
  expect([...madeCommands.keys()].sort()).toEqual(Object.keys(COMMANDS).sort());
  for (const file of sources('src/usecases'))
    for (const [, name, said] of readFileSync(file, 'utf8').matchAll(/export const (\w+) = command\(\s*'(\w+)'/g))
      expect(name).toBe(said);
});

/** Work that has begun reaches for the ledger: that is as far as it comes here. */
class Reached extends Error {}
const query = async (sql: unknown) => {
  if (!/^(begin|commit|rollback|select pg_advisory|select id, hash from audit|insert into audit)/.test(String(sql)))
    throw new Reached();
  return { rows: [], rowCount: 0 };
};
/** A database that takes lines of the audit, and nothing else. */
const onlyAudit = { query, connect: async () => ({ query, release: () => undefined }) };

const as = (role: Member['role']) => ({
  database: onlyAudit,
  clock: () => {
    throw new Reached();
  },
  who: { kind: 'person', id: 7, name: 'Odo Quill', role, scope: null, monthlyLimitMinor: null } satisfies Member,
});

/** Whether the work of a command begins for a role: anything but a refusal of the role shows that it does. */
async function begins(name: Command, role: Member['role']): Promise<boolean> {
  const run = madeCommands.get(name)?.guarded as unknown as (
    ...args: unknown[]
  ) => Promise<{ code?: string } | undefined>;
  try {
    return (await run(as(role), {}, {}, {}, {}))?.code !== 'role-lacking';
  } catch {
    return true;
  }
}

test.each(ROLES)('as a %s every command is asked, and only those of the role begin', async (role) => {
  const began: string[] = [];
  for (const name of Object.keys(COMMANDS) as Command[]) if (await begins(name, role)) began.push(name);
  expect(began).toEqual((Object.keys(COMMANDS) as Command[]).filter((name) => mayRole(role, name)));
});

const words = (text: string) => text.split(/\s+/).filter(Boolean);

/** What screens and other programs call that is no command, and why it need not be one. */
const NO_COMMANDS = new Set([
  // Changes nothing that somebody decides: it reads, or looks up.
  ...words(`
  waitingFor accounts heldAccount heldAccounts auditExport auditPage members allAssumptions approaches asOfFrom askingProgress auctionView auctions checkProgress
  comingFree compareTerms deps dropping eventsAfter foreignTransfers hangingOn health historyPage
  holderAddresses ideaSets idsOfNames importRows importSummary keptForecasts keptZone ledgerChoice link links
  listings listingsCsv lookBack lookUp mail mails marketplace marketplaces messagesSince nameDetail
  negotiation newestRecords offers officeSettings openRenewal openRenewals orImportFails orPlayedTooLong orTookTooLong
  pastSales pastedNames policies previewPrices previewRates priceRows pricesOverYears quoteByName rates
  rawMail readRequest readReviewQuery recordHistory refusedRowsCsv registrationRun registrations releaseOrders
  releaseTries reviewCsv reviewEntries reviewEntriesCsv reviewNames runCsv runOfName runProgress sales
  savedViews seenZone shortlist soldList statementOf transferById transfersUnderWay watches
  shopSettings blockedSenders deposits windowShown visitsOf webhook webhooks yearReview zonesOfTransfer
  `),
  // Carries on what was asked for by somebody who might.
  ...words('askForNames carryOnRegistrations carryOnTransfers carryOutRun carryOutSwitches drainChecks followSelling'),
  // Changes how one signs in oneself: held to one's own session, or to an invitation.
  ...words(`
  addOwnPasskey beginInvitedPasskey beginOwnPasskey beginSignIn comeInByPassPhrase comeInByPasskey
  endOwnSessions enrolInvited enrolOwn newOwnRecoveryCodes removeOwnPasskey setOwnPassPhrase
  signInByPassPhrase signInByPasskey signInByRecoveryCode
  `),
  // Is opened by a token of its own.
  ...words('readFeed seen'),
  // Goes on to commands, each of which asks.
  ...words('renewByName compute beginImport'),
]);

/** What is computed elsewhere that changes nothing: pages, files, pictures. */
const COMPUTED = new Set(
  words(`
  candidateTable accountForecast candidateDetail spellNames starvedCharges calendar decisionsToday
  differingNames exportCsv exportJson exportXlsx ledger listings nameOn offers pageOfNames transferPlan
  worthOfNames verdicts dropList forecastNow readAnew shownState sellingAgenda sellingReport sellingToday
  `),
);

test('what is computed in a thread is a command there too, or changes nothing', () => {
  const source = readFileSync('src/usecases/computing.ts', 'utf8');
  const table = /const COMPUTATIONS = \{([\s\S]*?)\n\} as const/.exec(source)?.[1] ?? '';
  const names = [...table.matchAll(/^ {2}(\w+)(?=[,:])/gm)].map(([, name]) => name ?? '');
  expect(names.length).toBeGreaterThan(20);
  // A day of the practice world is let pass by a command, which asks before the thread does.
  const left = names.filter((name) => !(name in COMMANDS) && !NO_COMMANDS.has(name) && !COMPUTED.has(name));
  expect(left).toEqual(['passDay']);
});

test('whatever a screen or a program calls is a command, or known to change nothing', () => {
  const callers = [
    ...files('src/app').filter((file) => /actions\.ts$|route\.ts$/.test(file)),
    ...sources('src/app/api/operations'),
  ];
  const unknown = new Set<string>();
  for (const file of callers)
    for (const [, names] of readFileSync(file, 'utf8').matchAll(/import \{([^}]*)\} from '@\/usecases\/[^']*'/g))
      for (const part of (names ?? '').split(',').map((one) => one.trim()))
        if (/^[a-z]\w*$/.test(part) && !(part in COMMANDS) && !NO_COMMANDS.has(part)) unknown.add(part);
  expect([...unknown].sort()).toEqual([]);
});
