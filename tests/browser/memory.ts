import { readdirSync, readFileSync } from 'node:fs';
import type { WebDriver } from 'selenium-webdriver';

/**
 * Bytes of memory that the tabs of a browser hold, their workers included: what the system says of the processes that draw pages, each
 * shared page counted for the share of it (`smaps_rollup`, proc(5)).
 */
export async function tabBytes(driver: WebDriver): Promise<number> {
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
    .reduce((sum, { pid }) => {
      const kept = /^Pss:\s*(\d+) kB/m.exec(readFileSync(`/proc/${pid}/smaps_rollup`, 'utf8'))?.[1] ?? '0';
      return sum + Number(kept) * 1024;
    }, 0);
}
