import { type RunningPractice, runPractice } from '@practice/run';
import { linkDemo, pointMailAt, pointRecordsAt } from '@practice/scenario/links';
import { seedDemo } from '@practice/scenario/seed';
import { seedSelling } from '@practice/scenario/selling';
import { demoWorld } from '@practice/scenario/world';
import { formatInstant } from '@/core/time';
import { keepBeating } from '@/usecases/health/health';
import { serve } from '../../bin/support/app';
import { freePort } from '../../bin/support/postgres';
import { emptyLedger, TEST_KEY, type TestLedger, TODAY } from '../database/ledger';
import { openBrowser, type Visitor } from './browser';

/** The built application on a ledger of its own, and a visitor to it. */
export interface TestApp {
  readonly ledger: TestLedger;
  readonly practice: RunningPractice | null;
  readonly visitor: Visitor;
  readonly url: string;
  /** Ends all, and fails on anything the browser's console complained of. */
  close(): Promise<void>;
}

export async function startApp(options: {
  demo: boolean;
  /** Runs the practice world of the demo beside it, with the demo's accounts linked. */
  practice?: boolean;
  width?: number;
  height?: number;
  /** By a name in place of a number: passkeys are made for names alone. */
  named?: boolean;
}): Promise<TestApp> {
  const ledger = await emptyLedger();
  if (options.demo) await seedDemo(ledger.database, TODAY);
  const practice = options.practice ? await runPractice({ world: demoWorld(TODAY), store: null }) : null;
  const port = await freePort();
  if (practice) {
    const ports = Object.entries(practice.ports).map(([id, open]) => [`harbour-${id}`, open]);
    await linkDemo(ledger, Object.fromEntries(ports));
    await pointMailAt(ledger.database, practice.mailPort, `http://127.0.0.1:${port}`);
    await pointRecordsAt(ledger.database, practice.records);
    if (options.demo) await seedSelling(ledger, practice.marketplacePort);
  }
  const app = await serve(
    port,
    {
      DATABASE_URL: ledger.url,
      NAME_LEDGER_TODAY: formatInstant(TODAY),
      NAME_LEDGER_KEY: TEST_KEY,
      ...(practice ? { PRACTICE_URL: `http://127.0.0.1:${practice.controlPort}` } : {}),
    },
    null,
  );
  // The jobs are done by the tests themselves, when they want them done.
  const stopBeating = keepBeating(ledger, 'jobs');
  const url = options.named ? app.url.replace('127.0.0.1', 'localhost') : app.url;
  const visitor = await openBrowser(url, options.width, options.height);
  return {
    ledger,
    practice,
    visitor,
    url,
    close: async () => {
      const errors = await visitor.consoleErrors();
      await visitor.close();
      stopBeating();
      await app.stop();
      // Its links go first: a registrar waits for them.
      await ledger.close();
      await practice?.stop();
      if (errors.length > 0) throw new Error(`the console told of:\n${errors.join('\n')}`);
    },
  };
}
