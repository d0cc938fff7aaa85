import { readFileSync } from 'node:fs';
import type { WebDriver } from 'selenium-webdriver';
import { formatInstant } from '@/core/time';
import { serve } from '../../bin/support/app';
import { freePort } from '../../bin/support/postgres';
import { openBrowser } from '../browser/browser';
import { TODAY } from '../database/ledger';

const EMPTY = "return document.querySelector('h2') !== null";

/** The built application on a ledger, a visitor to it, and what times its pages. */
export async function visitLedger(databaseUrl: string) {
  const app = await serve(
    await freePort(),
    { DATABASE_URL: databaseUrl, NAME_LEDGER_TODAY: formatInstant(TODAY) },
    null,
  );
  const visitor = await openBrowser(app.url);
  const close = async () => {
    await visitor.close();
    await app.stop();
  };
  /** Bytes that the application holds: what the system says of its process (`VmRSS`, proc(5)). */
  const serverBytes = () => {
    const status = readFileSync(`/proc/${app.child.pid}/status`, 'utf8');
    return Number(/^VmRSS:\s*(\d+) kB/m.exec(status)?.[1] ?? 0) * 1024;
  };
  return { visitor, pages: pageTimer(visitor.driver, app.url), close, serverBytes };
}

/** Times pages of an application from the address until a script says that they are there. */
function pageTimer(driver: WebDriver, url: string) {
  const once = async (path: string, seen: string) => {
    const start = performance.now();
    await driver.get(url + path);
    await driver
      .wait(() => driver.executeScript<boolean>(seen), 60_000)
      .catch(async (cause: unknown) => {
        const says = await driver.executeScript<string>('return document.body.innerText.slice(0, 2000)');
        throw new Error(`${path} does not show what was waited for; it says:\n${says}`, { cause });
      });
    return performance.now() - start;
  };
  /** The shorter of two, after one that warms up. */
  const best = async (path: string, seen: string) => {
    await once(path, seen);
    return Math.min(await once(path, seen), await once(path, seen));
  };
  return { once, best, empty: () => best('/setup/backup', EMPTY) };
}
