import { Key } from 'selenium-webdriver';
import type { Visitor } from '../browser/browser';

/** Milliseconds from an act until its rows are painted: median and 95th percentile. */
export type Painted = readonly [median: number, p95: number];

/** Measured in the page itself: from the act to the end of the frame that paints the newly arranged rows. */
const TIMED = `
  window.timed = (act) => new Promise((done) => {
    const start = performance.now();
    const painted = () => requestAnimationFrame(() => { const channel = new MessageChannel(); channel.port1.onmessage = () => done(performance.now() - start); channel.port2.postMessage(0); });
    const measure = performance.measure;
    performance.measure = function (name, ...more) {
      if (name === 'arrange the ledger') { performance.measure = measure; painted(); }
      return measure.call(performance, name, ...more);
    };
    act();
  });`;
const DATE = "document.body.dispatchEvent(new KeyboardEvent('keydown', { key: ']', bubbles: true }));";
const SORT = "document.querySelectorAll('[role=columnheader]')[1 + (i % 4 < 2 ? 2 : 0)].click();";
const TYPE = `const box = document.querySelector('input[type=search]'); const set = Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, 'value').set;
  set.call(box, ['kelp', 'kelpk', 'quay', 'q', 'mill'][i % 5]); box.dispatchEvent(new Event('input', { bubbles: true }));`;

/** So many weeks the date can be moved ahead: all of them, one after the other. */
const WEEKS_AHEAD = 104;
/** The date, the order and the filter as often. */
export const ACTS = 3 * WEEKS_AHEAD;

/** What a series of acts took, and the first three of each in the order in which they came: code that has not run yet takes longer. */
export interface Arranging extends Record<'date' | 'sort' | 'filter', Painted> {
  readonly first: string;
}

/** How quickly the open ledger follows: its date moved by weeks, sorted by two headings, filtered while typing. */
export async function arranging({ driver, keys }: Visitor): Promise<Arranging> {
  await driver.executeScript(TIMED);
  const first: string[] = [];
  const series = async (name: string, count: number, act: string): Promise<Painted> => {
    const times: number[] = [];
    for (let i = 0; i < count; i += 1)
      times.push(
        await driver.executeAsyncScript<number>(
          `const done = arguments[arguments.length - 1]; const i = ${i}; window.timed(() => { ${act} }).then(done);`,
        ),
      );
    first.push(`${name} ${times.slice(0, 3).map(Math.round).join(', ')}`);
    times.sort((a, b) => a - b);
    return [ranked(times, 0.5), ranked(times, 0.95)];
  };
  const date = await series('date', WEEKS_AHEAD, DATE);
  await keys('t');
  const sort = await series('sort', WEEKS_AHEAD, SORT);
  const filter = await series('filter', WEEKS_AHEAD, TYPE);
  await keys(Key.NULL);
  return { date, sort, filter, first: first.join('; ') };
}

/** The percentile of sorted times, by nearest rank. */
const ranked = (sorted: readonly number[], share: number) => sorted[Math.ceil(sorted.length * share) - 1] ?? 0;
