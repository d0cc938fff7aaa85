import type { WebDriver } from 'selenium-webdriver';

const EMPTY = "return document.querySelector('h2') !== null";

/** Times pages of an application from the address until a script says that they are there. */
export function pageTimer(driver: WebDriver, url: string) {
  const once = async (path: string, seen: string) => {
    const start = performance.now();
    await driver.get(url + path);
    await driver.wait(() => driver.executeScript<boolean>(seen), 60_000);
    return performance.now() - start;
  };
  /** The shorter of two, after one that warms up. */
  const best = async (path: string, seen: string) => {
    await once(path, seen);
    return Math.min(await once(path, seen), await once(path, seen));
  };
  return { once, best, empty: () => best('/setup/backup', EMPTY) };
}
