import { readdirSync, readFileSync } from 'node:fs';
import type { WebDriver } from 'selenium-webdriver';

/**
 * Bytes of memory that the tab holds which a browser shows, its workers included: what the system says of the process that draws it, each
 * shared page counted for the share of it (`smaps_rollup`, proc(5)). A browser has such processes for pages of its own too, and one to spare.
 */
export async function tabBytes(driver: WebDriver): Promise<number> {
  const drawing = await drawingProcesses(driver);
  const before = new Map(drawing.map((pid) => [pid, ticksOf(pid)]));
  // The tab's is the one in which its script runs.
  await driver.executeScript('for (const end = performance.now() + 250; performance.now() < end; );');
  const worked = (pid: string) => ticksOf(pid) - (before.get(pid) ?? 0);
  const [tab] = drawing.sort((a, b) => worked(b) - worked(a));
  if (tab === undefined) throw new Error('no process of this browser draws a page');
  const kept = /^Pss:\s*(\d+) kB/m.exec(readFileSync(`/proc/${tab}/smaps_rollup`, 'utf8'))?.[1] ?? '0';
  return Number(kept) * 1024;
}

/** The processor's time that a process has had, in ticks (`utime`, proc(5)). */
function ticksOf(pid: string): number {
  const stat = readFileSync(`/proc/${pid}/stat`, 'utf8');
  // Its name, in brackets, may have blanks.
  return Number(stat.slice(stat.lastIndexOf(')') + 2).split(' ')[11]);
}

/** The processes that draw pages for a browser. */
async function drawingProcesses(driver: WebDriver): Promise<string[]> {
  const capabilities = await driver.getCapabilities();
  const { userDataDir } = capabilities.get('chrome') as { userDataDir: string };
  const processes = readdirSync('/proc')
    .filter((entry) => /^\d+$/.test(entry))
    .flatMap((pid) => {
      try {
        const command = readFileSync(`/proc/${pid}/cmdline`, 'utf8');
        const parent = /^PPid:\s*(\d+)/m.exec(readFileSync(`/proc/${pid}/status`, 'utf8'))?.[1] ?? '';
        return [{ pid, parent, command }];
      } catch {
        // It has ended meanwhile.
        return [];
      }
    });
  const browser = processes.find(({ command }) => command.includes(userDataDir) && !command.includes('--type='));
  if (!browser) throw new Error(`no browser with ${userDataDir} is running`);
  const isOurs = (pid: string): boolean => {
    if (pid === browser.pid) return true;
    const found = processes.find((one) => one.pid === pid);
    return found !== undefined && found.parent !== '0' && found.parent !== pid && isOurs(found.parent);
  };
  return processes
    .filter(({ pid, command }) => command.includes('--type=renderer') && isOurs(pid))
    .map(({ pid }) => pid);
}
