import { parseArgs } from 'node:util';

/** What the start command was told. README.md lists it. */
export const { values: options } = parseArgs({
  options: {
    fresh: { type: 'boolean', default: false },
    empty: { type: 'boolean', default: false },
    demo: { type: 'boolean', default: false },
    port: { type: 'string', default: '4180' },
    'shop-port': { type: 'string' },
    listen: { type: 'string' },
    host: { type: 'string' },
    certificate: { type: 'string' },
    'certificate-key': { type: 'string' },
    proxy: { type: 'string' },
    today: { type: 'string' },
    log: { type: 'boolean', default: false },
    'rotate-key': { type: 'boolean', default: false },
  },
});

function portIn(text: string, name: string): number {
  const port = Number(text);
  if (!Number.isInteger(port) || port < 1 || port > 65_535) throw new Error(`Give --${name} a number from 1 to 65535.`);
  return port;
}

/** The ports of the application and, where it was asked for, of the shop. */
export function portsIn(said: { readonly port: string; readonly 'shop-port'?: string | undefined }): {
  readonly port: number;
  readonly shopPort: number | null;
} {
  const port = portIn(said.port, 'port');
  const shopPort = said['shop-port'] === undefined ? null : portIn(said['shop-port'], 'shop-port');
  if (shopPort === port) throw new Error('Give --shop-port another port than --port.');
  return { port, shopPort };
}
