import { shopKeyText } from '../../src/usecases/secrets/seal';
import type { ShopAsked } from './ports';

/** Listening there, this machine reaches itself by loopback. */
const LOCAL: ReadonlySet<string> = new Set(['127.0.0.1', '0.0.0.0', '::', '::1']);
const addressOf = ({ listen, port }: ShopAsked) => `http://${LOCAL.has(listen) ? '127.0.0.1' : listen}:${port}`;

/** What the shop's process is told. It is open to all the world, and has no way to the office's own secrets: of the key, only one that is made of it. */
export function shopEnv(asked: ShopAsked, key: string | undefined, databaseUrl: string): Record<string, string> {
  const { port, listen, tlsPort, proxy } = asked;
  return {
    NAME_LEDGER_KEY: '',
    NAME_LEDGER_SHOP_KEY: key ? shopKeyText(key) : '',
    DATABASE_URL: databaseUrl,
    PORT: String(port),
    NAME_LEDGER_SHOP_LISTEN: listen,
    NAME_LEDGER_SHOP_TLS_PORT: tlsPort === null ? '' : String(tlsPort),
    NAME_LEDGER_SHOP_PROXY: proxy ?? '',
  };
}

/** Whether the shop answers. Throws when it does not in time. */
export async function shopAnswers(asked: ShopAsked): Promise<true> {
  await fetch(`${addressOf(asked)}/robots.txt`, { signal: AbortSignal.timeout(4500) });
  return true;
}

/** Where the shop is, said to whoever started it. */
export function shopSaid(asked: ShopAsked): string {
  const { listen, tlsPort } = asked;
  const where = listen === '127.0.0.1' ? '(this machine only)' : `and beyond this machine on ${listen}`;
  const tls = tlsPort === null ? '' : `, over TLS on port ${tlsPort}`;
  return `The shop window is at ${addressOf(asked)}/n/NAME ${where}${tls}.`;
}
