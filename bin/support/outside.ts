import { existsSync } from 'node:fs';
import { isIP } from 'node:net';
import { resolve } from 'node:path';
import type { Database } from '../../src/database/pool';
import { isGuarded } from '../../src/usecases/people/members';

/** What was asked of the start command about listening beyond this machine. */
export interface OutsideOptions {
  readonly listen?: string | undefined;
  readonly host?: string | undefined;
  readonly certificate?: string | undefined;
  readonly 'certificate-key'?: string | undefined;
  readonly proxy?: string | undefined;
}

/** Where the program is served beyond this machine, as its process is told. */
export interface OutsideServed {
  readonly origin: string;
  readonly env: Readonly<Record<string, string>>;
}

const LOOPBACK = /^(127\.\d+\.\d+\.\d+|::1|localhost)$/;

/**
 * What follows from the options; `null` where the program stays on this machine. Refused, with what to do: an address that is none, no name
 * to be reached by, neither a certificate nor a proxy.
 */
export function outsideOf(options: OutsideOptions, port: number): OutsideServed | null {
  const { listen, host, certificate, 'certificate-key': key, proxy } = options;
  if (listen === undefined || LOOPBACK.test(listen)) {
    if (host ?? certificate ?? key ?? proxy)
      throw new Error('Say with --listen on which address it is to be reached, like 0.0.0.0.');
    return null;
  }
  if (isIP(listen) === 0) throw new Error('Give --listen an address of this machine, or 0.0.0.0 for all of them.');
  if (!host || !/^[a-z0-9-]+(\.[a-z0-9-]+)+$/i.test(host))
    throw new Error('Say with --host by which name it is reached, like names.example.test.');
  if (proxy !== undefined && isIP(proxy) === 0) throw new Error('Give --proxy the address from which the proxy asks.');
  if ((certificate === undefined) !== (key === undefined))
    throw new Error('A certificate and its key belong together: --certificate FILE --certificate-key FILE.');
  if (certificate === undefined && proxy === undefined)
    throw new Error(
      'Beyond this machine it is served over TLS alone: give --certificate and --certificate-key, or --proxy with the address of a proxy that has them.',
    );
  for (const file of [certificate, key])
    if (file !== undefined && !existsSync(file)) throw new Error(`${file} is not there.`);
  // A proxy shows it under the usual port.
  const shown = proxy === undefined && port !== 443 ? `:${port}` : '';
  const origin = `https://${host.toLowerCase()}${shown}`;
  return {
    origin,
    env: {
      NAME_LEDGER_LISTEN: listen,
      NAME_LEDGER_LISTEN_PORT: String(port),
      NAME_LEDGER_ORIGIN: origin,
      ...(certificate && key
        ? { NAME_LEDGER_CERTIFICATE: resolve(certificate), NAME_LEDGER_CERTIFICATE_KEY: resolve(key) }
        : {}),
      ...(proxy === undefined ? {} : { NAME_LEDGER_PROXY: proxy }),
    },
  };
}

/** Whether an address of before, set by hand for a proxy on this machine, leads beyond it. */
export const leadsOutside = (origin: string | undefined): boolean =>
  origin !== undefined && !LOOPBACK.test(new URL(origin).hostname);

/** Refuses to show a ledger beyond this machine in which nobody needs to sign in. */
export async function refuseUnguarded(database: Database): Promise<void> {
  if (await isGuarded({ database })) return;
  throw new Error(
    'Nobody needs to sign in yet: beyond this machine anybody would do everything. Start without --listen, invite the first owner under Setup → People, and come in by that link.',
  );
}
