import { lookup as resolve } from 'node:dns';
import { BlockList, isIP } from 'node:net';

/**
 * Addresses that are not public: loopback, private, link-local, shared, documentation, multicast, site-local, and those that stand for
 * another one (IANA special-purpose registries of RFC 6890; RFC 4193, RFC 3879, RFC 3056, RFC 6052, RFC 4291 section 2.5.5).
 */
const PRIVATE = new BlockList();
for (const [net, bits] of [
  ['0.0.0.0', 8],
  ['10.0.0.0', 8],
  ['100.64.0.0', 10],
  ['127.0.0.0', 8],
  ['169.254.0.0', 16],
  ['172.16.0.0', 12],
  ['192.0.0.0', 24],
  ['192.0.2.0', 24],
  ['192.168.0.0', 16],
  ['198.18.0.0', 15],
  ['198.51.100.0', 24],
  ['203.0.113.0', 24],
  ['224.0.0.0', 3],
] as const)
  PRIVATE.addSubnet(net, bits, 'ipv4');
for (const [net, bits] of [
  // IPv4-compatible and translated addresses, 6to4 and Teredo lead to an IPv4 address that nobody has looked at.
  ['::', 96],
  ['::ffff:0:0:0', 96],
  ['64:ff9b::', 96],
  ['64:ff9b:1::', 48],
  ['100::', 64],
  ['2001::', 23],
  ['2002::', 16],
  ['fc00::', 7],
  ['fe80::', 10],
  ['ff00::', 8],
  ['2001:db8::', 32],
  ['3fff::', 20],
  ['fec0::', 10],
] as const)
  PRIVATE.addSubnet(net, bits, 'ipv6');

export function isPublic(address: string): boolean {
  const family = isIP(address);
  return family !== 0 && !PRIVATE.check(address, family === 4 ? 'ipv4' : 'ipv6');
}

type Lookup = (
  host: string,
  options: object,
  done: (
    error: NodeJS.ErrnoException | null,
    address: string | { address: string; family: number }[],
    family?: number,
  ) => void,
) => void;

/**
 * A `lookup` for sockets that answers public addresses only, and any address of the hosts that are `allowed` by setting. The
 * check is made where the connection is, so that a name cannot show one address and lead to another.
 */
export function publicLookup(allowed: readonly string[]): Lookup {
  return (host, options, done) => {
    resolve(host, { ...options, all: true }, (error, found) => {
      if (error) return done(error, []);
      const usable = allowed.includes(host) ? found : found.filter(({ address }) => isPublic(address));
      const [first] = usable;
      if (!first) {
        const refused: NodeJS.ErrnoException = new Error(`${host} is not at a public address`);
        refused.code = 'EREFUSED_ADDRESS';
        return done(refused, []);
      }
      if ((options as { all?: boolean }).all) done(null, usable);
      else done(null, first.address, first.family);
    });
  };
}

/** True when a host may be asked: an address given as such is checked here, a name when it is looked up. */
export function mayAsk(host: string, allowed: readonly string[]): boolean {
  const bare = host.replace(/^\[|\]$/g, '');
  return allowed.includes(host) || isIP(bare) === 0 || isPublic(bare);
}

/** What is said of a host that may not be asked. */
export function notPublic(host: string): string {
  return `${host} is not at a public address. If it is yours, allow it under Setup → Records: Hosts that are not public.`;
}

/** True where nobody between can read or change what is sent: over TLS, or inside this machine. */
export function isUntouched({ protocol, hostname }: URL): boolean {
  return protocol === 'https:' || (protocol === 'http:' && ['127.0.0.1', '[::1]', 'localhost'].includes(hostname));
}
