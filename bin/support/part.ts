import 'reflect-metadata';
import { pathToFileURL } from 'node:url';
import { parseArgs } from 'node:util';
import { migrate } from '../../src/database/migrate';
import { openDatabase } from '../../src/database/pool';
import { shopKeyText } from '../../src/usecases/secrets/seal';
import { build } from './app';
import { outsideOf, refuseUnguarded } from './outside';
import { portIn, shopIn } from './ports';
import { programPath } from './programs';
import { shopEnv } from './shop';

const PARTS = ['app', 'shop', 'jobs', 'build'] as const;
const PROGRAM = { app: 'server', shop: 'shop', jobs: 'jobs' } as const;

/** What the environment has to hold, and what for. */
function needed(name: string, what: string): string {
  const value = process.env[name];
  if (!value) throw new Error(`Set ${name}: ${what}.`);
  return value;
}

/** One part of the program in this process, on a database that it shares with the others. */
async function run(): Promise<void> {
  const { values, positionals } = parseArgs({
    allowPositionals: true,
    options: {
      port: { type: 'string' },
      listen: { type: 'string' },
      host: { type: 'string' },
      certificate: { type: 'string' },
      'certificate-key': { type: 'string' },
      proxy: { type: 'string' },
      'shop-listen': { type: 'string' },
      'shop-tls-port': { type: 'string' },
      'shop-proxy': { type: 'string' },
    },
  });
  const part = PARTS.find((one) => one === positionals[0]);
  if (!part) throw new Error(`Say which part: bin/part ${PARTS.join(' | ')}.`);
  build();
  if (part === 'build') return;
  const url = needed('DATABASE_URL', 'the database that all parts share');
  const key = needed('NAME_LEDGER_KEY', 'the text that seals secrets, the same for all parts');
  // Whoever comes first brings the tables up to date; the others wait for that.
  await migrate(url);
  const port = portIn(values.port ?? (part === 'shop' ? '4190' : '4180'), 'port');
  if (part === 'shop') {
    Object.assign(process.env, shopEnv(shopIn(values, port), key, url));
  } else {
    const outside = part === 'app' ? outsideOf(values, port) : null;
    if (outside) {
      const database = openDatabase(url, (error) => console.error(error.message));
      await refuseUnguarded(database).finally(() => database.end());
      Object.assign(process.env, outside.env);
    }
    Object.assign(process.env, { PORT: String(port), NAME_LEDGER_SHOP_KEY: shopKeyText(key) });
  }
  Object.assign(process.env, { NODE_ENV: 'production' });
  await import(pathToFileURL(programPath(PROGRAM[part])).href);
}

await run().catch((error: unknown) => {
  console.error(error instanceof Error ? error.message : error);
  process.exit(1);
});
