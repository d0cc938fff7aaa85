import { seedDemo } from '@practice/scenario/seed';
import { formatInstant } from '@/core/time';
import { serve } from '../../bin/support/app';
import { freePort } from '../../bin/support/postgres';
import { emptyLedger, type TestLedger, TODAY } from '../database/ledger';
import { openBrowser, type Visitor } from './browser';

/** The built application on a ledger of its own, and a visitor to it. */
export interface TestApp {
  readonly ledger: TestLedger;
  readonly visitor: Visitor;
  readonly url: string;
  /** Ends all, and fails on anything the browser's console complained of. */
  close(): Promise<void>;
}

export async function startApp(options: { demo: boolean; width?: number; height?: number }): Promise<TestApp> {
  const ledger = await emptyLedger();
  if (options.demo) await seedDemo(ledger.database, TODAY);
  const app = await serve(
    await freePort(),
    { DATABASE_URL: ledger.url, NAME_LEDGER_TODAY: formatInstant(TODAY) },
    'ignore',
  );
  const visitor = await openBrowser(app.url, options.width, options.height);
  return {
    ledger,
    visitor,
    url: app.url,
    close: async () => {
      const errors = await visitor.consoleErrors();
      await visitor.close();
      await app.stop();
      await ledger.close();
      if (errors.length > 0) throw new Error(`the console told of:\n${errors.join('\n')}`);
    },
  };
}
