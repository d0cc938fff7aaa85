import { readFileSync } from 'node:fs';
import type { IncomingMessage } from 'node:http';
import { callerAddress, plainAddress } from '@/core/people';

/** Where the program is reached from beyond this machine: always by a name, and over TLS of its own or of a proxy that is named. */
export interface Outside {
  readonly listen: string;
  readonly port: number;
  /** Under which it is shown: `https://names.example.test`. */
  readonly origin: URL;
  /** The certificate and its key, where the program speaks TLS itself. */
  readonly tls: { readonly cert: Buffer; readonly key: Buffer } | null;
  /** The address of the proxy that speaks TLS in front; nobody else is answered. */
  readonly proxy: string | null;
}

/** What the start command has said in the environment; `null` where nothing beyond this machine is served. */
export function outsideFrom(env: Readonly<Record<string, string | undefined>>): Outside | null {
  const { NAME_LEDGER_LISTEN: listen, NAME_LEDGER_LISTEN_PORT: port, NAME_LEDGER_ORIGIN: origin } = env;
  if (!listen || !port || !origin) return null;
  const { NAME_LEDGER_CERTIFICATE: cert, NAME_LEDGER_CERTIFICATE_KEY: key, NAME_LEDGER_PROXY: proxy } = env;
  const tls = cert && key ? { cert: readFileSync(cert), key: readFileSync(key) } : null;
  if (tls === null && !proxy)
    throw new Error('beyond this machine nothing is served without TLS or a proxy that is named');
  return { listen, port: Number(port), origin: new URL(origin), tls, proxy: proxy ?? null };
}

/** Whether a request came by the proxy that stands in front. */
export function isByProxy({ socket }: IncomingMessage, { proxy }: Outside): boolean {
  return proxy !== null && plainAddress(socket.remoteAddress) === proxy;
}

/** From where a request comes. */
export function addressOf({ socket, headers }: IncomingMessage, outside: Outside | null): string {
  return callerAddress(socket.remoteAddress, headers['x-forwarded-for'], outside?.proxy ?? null);
}
