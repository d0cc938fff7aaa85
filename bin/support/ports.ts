import { isIP } from 'node:net';

/** A port that was said; refused is what is none. */
export function portIn(text: string, name: string): number {
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

interface ShopSaid {
  readonly 'shop-listen'?: string | undefined;
  readonly 'shop-tls-port'?: string | undefined;
  readonly 'shop-proxy'?: string | undefined;
}

/** Where the shop is served on `port`. Refused, with what to do, is what makes no sense. */
export function shopIn(said: ShopSaid, port: number): ShopAsked {
  const { 'shop-listen': listen, 'shop-tls-port': tls, 'shop-proxy': proxy } = said;
  const tlsPort = tls === undefined ? null : portIn(tls, 'shop-tls-port');
  if (tlsPort === port) throw new Error('Give the shop another port for TLS.');
  if (listen !== undefined && isIP(listen) === 0)
    throw new Error('Give --shop-listen an address of this machine, or 0.0.0.0 for all of them.');
  if (proxy !== undefined && isIP(proxy) === 0)
    throw new Error('Give --shop-proxy the address from which the proxy asks.');
  return { port, listen: listen ?? '127.0.0.1', tlsPort, proxy: proxy ?? null };
}

/** The port of the application and, where it was asked for, where the shop is served. */
export function portsIn(said: ShopSaid & { readonly port: string; readonly 'shop-port'?: string | undefined }): {
  readonly port: number;
  readonly shop: ShopAsked | null;
} {
  const port = portIn(said.port, 'port');
  if (said['shop-port'] === undefined) {
    if (said['shop-listen'] ?? said['shop-tls-port'] ?? said['shop-proxy'])
      throw new Error('Say with --shop-port on which port the shop window is served.');
    return { port, shop: null };
  }
  const shop = shopIn(said, portIn(said['shop-port'], 'shop-port'));
  if (shop.port === port || shop.tlsPort === port) throw new Error('Give --shop-port another port than --port.');
  return { port, shop };
}
