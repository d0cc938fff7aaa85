import 'reflect-metadata';
import { askForNames } from '@/usecases/acquiring/askForNames';
import { carryOnRegistrations } from '@/usecases/acquiring/carryOn';
import { carryOnReleases } from '@/usecases/acquiring/carryOnReleases';
import { loadClock } from '@/usecases/clock';
import { type Deps, deps } from '@/usecases/deps';
import { doJob, keepBeating } from '@/usecases/health/health';
import { dropOldImports, endCutImports } from '@/usecases/imports/cleanUp';
import { pollEveryAccount } from '@/usecases/links/poll';
import { readBalances } from '@/usecases/links/readAccount';
import { carryOutSwitches } from '@/usecases/links/switches';
import { readMailboxIfAny } from '@/usecases/mails/mailbox';
import { keepReceiving } from '@/usecases/mails/receive';
import { followTransfers } from '@/usecases/moving/follow';
import { carryOnRuns } from '@/usecases/orders/carryOut';
import { tellWebhooks } from '@/usecases/programs/deliver';
import { forgetOldEvents } from '@/usecases/programs/events';
import { forgetOldKeys } from '@/usecases/programs/keyed';
import { readDailyRates } from '@/usecases/rates/rates';
import { drainChecks } from '@/usecases/records/check';
import { queueDueChecks } from '@/usecases/records/schedule';
import { sendReminders } from '@/usecases/reminders/remind';
import { followSelling } from '@/usecases/selling/follow';
import { renewCertificates } from '@/usecases/shop/certificates';
import { lookAtWindows } from '@/usecases/shop/shows';
import { forgetOldLetters, tellBuyers } from '@/usecases/shop/tell';
import { openQueues } from './queues';

/** What happens without anyone clicking, and when (cron, UTC). Jobs are claimed from PostgreSQL: any number of processes may run. */
const SCHEDULE = {
  'carry-on-runs': { cron: '* * * * *', work: carryOnRuns },
  'carry-on-transfers': { cron: '* * * * *', work: followTransfers },
  'carry-on-registrations': { cron: '* * * * *', work: carryOnRegistrations },
  'carry-on-releases': { cron: '* * * * *', work: carryOnReleases },
  'carry-out-switches': { cron: '* * * * *', work: (own: Deps) => carryOutSwitches(own, 'with pauses') },
  'poll-accounts': { cron: '* * * * *', work: (own: Deps) => pollEveryAccount(own, 'with pauses') },
  'queue-record-checks': { cron: '23 * * * *', work: queueDueChecks },
  'ask-for-names': { cron: '* * * * *', work: (own: Deps) => askForNames(own, ASKING_MS) },
  'check-records': { cron: '* * * * *', work: (own: Deps) => drainChecks(own) },
  'follow-selling': { cron: '* * * * *', work: (own: Deps) => followSelling(own, 'with pauses') },
  'send-reminders': { cron: '*/10 * * * *', work: sendReminders },
  'read-balances': { cron: '17 * * * *', work: (own: Deps) => readBalances(own, 'with pauses') },
  'read-mailbox': { cron: '*/2 * * * *', work: readMailboxIfAny },
  'read-rates': { cron: '37 * * * *', work: readDailyRates },
  'end-cut-imports': { cron: '* * * * *', work: endCutImports },
  'drop-old-imports': { cron: '41 * * * *', work: dropOldImports },
  'forget-old-keys': { cron: '43 * * * *', work: forgetOldKeys },
  'forget-old-events': { cron: '47 * * * *', work: forgetOldEvents },
  'look-at-windows': { cron: '11 * * * *', work: lookAtWindows },
  'renew-certificates': { cron: '19 * * * *', work: renewCertificates },
  'forget-old-letters': { cron: '53 * * * *', work: forgetOldLetters },
  'tell-buyers': { cron: '* * * * *', work: (own: Deps) => tellBuyers(own, TELLING_MS) },
  'tell-webhooks': { cron: '* * * * *', work: (own: Deps) => tellWebhooks(own, TELLING_MS) },
} as const;

/** Programs are told within a second or two, until the next minute's turn. */
const TELLING_MS = 58_000;

/** Asking for thousands of names goes on in the next minute. */
const ASKING_MS = 55_000;

const { DATABASE_URL } = process.env;
if (!DATABASE_URL) throw new Error('DATABASE_URL is not set; start the program with bin/start');
const own = deps({ part: 'jobs', connections: 10, thread: null });
const crons = Object.fromEntries(Object.entries(SCHEDULE).map(([queue, { cron }]) => [queue, cron]));
const boss = await openQueues(DATABASE_URL, crons, (error) => own.log.error({ err: error }, 'the job queue failed'));
for (const [queue, { work }] of Object.entries(SCHEDULE))
  await boss.work(queue, { pollingIntervalSeconds: 5 }, async () => {
    await loadClock(own);
    await doJob(own, queue, work);
  });
const stopBeating = keepBeating(own, 'jobs');
const stopReceiving = keepReceiving(own);
console.log('jobs ready');

// What an earlier end left on its way goes on at once.
await loadClock(own);
for (const [job, work] of [
  ['carry-on-runs', carryOnRuns],
  ['carry-on-transfers', followTransfers],
  ['carry-on-registrations', carryOnRegistrations],
  ['follow-selling', followSelling],
] as const)
  await doJob(own, job, work).catch(() => undefined);

for (const signal of ['SIGINT', 'SIGTERM'] as const) {
  process.on(signal, () => {
    stopBeating();
    void Promise.all([stopReceiving(), boss.stop({ timeout: 5000 })]).finally(() => process.exit(0));
  });
}
process.on('uncaughtException', (error) => {
  own.log.fatal({ err: error }, 'the jobs end');
  process.exit(1);
});
