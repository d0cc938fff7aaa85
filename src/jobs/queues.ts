import PgBoss from 'pg-boss';
import { inTurn } from '@/database/locks';

/**
 * Opens the queues of this database, one for each job, and says when each has its turn (cron, UTC). Several processes may start at the same
 * moment: making a queue locks tables that another one needs, so they do it in turn, and none works before all queues are there.
 */
export async function openQueues(
  databaseUrl: string,
  crons: Readonly<Record<string, string>>,
  onError: (error: Error) => void,
): Promise<PgBoss> {
  const boss = new PgBoss({ connectionString: databaseUrl, application_name: 'name-ledger-jobs', max: 3 });
  boss.on('error', onError);
  await inTurn(databaseUrl, 'opening the queues', async () => {
    await boss.start();
    for (const [queue, cron] of Object.entries(crons)) {
      await boss.createQueue(queue, { name: queue, policy: 'short', retryLimit: 2, expireInSeconds: 600 });
      await boss.schedule(queue, cron);
    }
  });
  return boss;
}
