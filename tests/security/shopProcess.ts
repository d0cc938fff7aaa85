import { spawn } from 'node:child_process';
import { formatInstant } from '@/core/time';
import { freePort } from '../../bin/support/postgres';
import { programPath } from '../../bin/support/programs';
import { shopEnv } from '../../bin/support/shop';
import { TEST_KEY, type TestLedger } from '../database/ledger';

/** The shop as it is started: a process of its own. */
export interface ShopProcess {
  readonly port: number;
  readonly pid: number;
  stop(): Promise<void>;
}

export async function startShop(
  ledger: TestLedger,
  more: Readonly<Record<string, string>> = {},
  port?: number,
): Promise<ShopProcess> {
  const at = port ?? (await freePort());
  const asked = { port: at, listen: '127.0.0.1', tlsPort: null, proxy: null };
  const child = spawn(process.execPath, [programPath('shop')], {
    env: {
      ...process.env,
      NODE_ENV: 'production',
      NAME_LEDGER_TODAY: formatInstant(ledger.clock()),
      ...shopEnv(asked, TEST_KEY, ledger.url),
      ...more,
    },
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  await new Promise<void>((ready, failed) => {
    child.once('exit', () => failed(new Error('the shop ended before it was ready')));
    child.stdout.on('data', (piece: Buffer) => {
      if (piece.toString().includes('shop ready')) ready();
    });
  });
  return {
    port: at,
    pid: child.pid as number,
    stop: () =>
      new Promise((ended) => {
        child.once('exit', () => ended());
        child.kill('SIGTERM');
      }),
  };
}
