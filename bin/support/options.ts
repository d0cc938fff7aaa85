import { isIP } from 'node:net';
import { parseArgs } from 'node:util';

/** What the start command was told. README.md lists it. */
export const { values: options } = parseArgs({
  options: {
    fresh: { type: 'boolean', default: false },
    empty: { type: 'boolean', default: false },
    demo: { type: 'boolean', default: false },
    port: { type: 'string', default: '4180' },
    'shop-port': { type: 'string' },
    'shop-listen': { type: 'string' },
    'shop-tls-port': { type: 'string' },
    'shop-proxy': { type: 'string' },
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

/** Where the shop is served. */
export interface ShopAsked {
  readonly port: number;
  readonly listen: string;
  readonly tlsPort: number | null;
  readonly proxy: string | null;
}

interface PortsSaid {
  readonly port: string;
  readonly 'shop-port'?: string | undefined;
  readonly 'shop-listen'?: string | undefined;
  readonly 'shop-tls-port'?: string | undefined;
  readonly 'shop-proxy'?: string | undefined;
}

/** The port of the application and, where it was asked for, where the shop is served. Refused, with what to do, is what makes no sense. */
export function portsIn(said: PortsSaid): { readonly port: number; readonly shop: ShopAsked | null } {
  const port = portIn(said.port, 'port');
  const { 'shop-listen': listen, 'shop-tls-port': tls, 'shop-proxy': proxy } = said;
  if (said['shop-port'] === undefined) {
    if (listen ?? tls ?? proxy) throw new Error('Say with --shop-port on which port the shop window is served.');
    return { port, shop: null };
  }
  const shopPort = portIn(said['shop-port'], 'shop-port');
  const tlsPort = tls === undefined ? null : portIn(tls, 'shop-tls-port');
  if (shopPort === port || tlsPort === port || tlsPort === shopPort)
    throw new Error('Give --shop-port and --shop-tls-port ports of their own.');
  if (listen !== undefined && isIP(listen) === 0)
    throw new Error('Give --shop-listen an address of this machine, or 0.0.0.0 for all of them.');
  if (proxy !== undefined && isIP(proxy) === 0)
    throw new Error('Give --shop-proxy the address from which the proxy asks.');
  return { port, shop: { port: shopPort, listen: listen ?? '127.0.0.1', tlsPort, proxy: proxy ?? null } };
}
