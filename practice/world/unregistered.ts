import type { Registrar } from './types';

/** What a registry says of a name that nobody has registered. */
export interface Unregistered {
  /** Kept back by the registry: nobody can register it. */
  readonly reserved: boolean;
  /** A price of its own, in minor units of the registrar's currency, tax not included; `null` for the ending's. */
  readonly own: { readonly registerMinor: number; readonly renewMinor: number } | null;
}

const RESERVED = new Set(['www', 'nic', 'whois', 'registry', 'example', 'localhost', 'test']);
const SHORT = 4;
const ONE_IN_PREMIUM = 23;
const ONE_IN_RESERVED = 97;

/** FNV-1a, 32 bits: the same standing for the same name in every run. */
function hashOf(text: string): number {
  let hash = 0x811c9dc5;
  for (const letter of text) hash = Math.imul(hash ^ (letter.codePointAt(0) ?? 0), 0x01000193) >>> 0;
  return hash;
}

/** How a registry keeps a name that is not registered: some are reserved, some have a price of their own with dear renewals. */
export function unregistered(name: string): Unregistered {
  const label = name.slice(0, name.indexOf('.'));
  const hash = hashOf(name);
  if (RESERVED.has(label) || hash % ONE_IN_RESERVED === 0) return { reserved: true, own: null };
  if (label.length > SHORT && hash % ONE_IN_PREMIUM !== 0) return { reserved: false, own: null };
  const step = 1 + (hash % 40);
  return {
    reserved: false,
    own: { registerMinor: step * 12_000, renewMinor: label.length > SHORT ? step * 3000 : step * 12_000 },
  };
}

/** What a registrar asks for registering a name for some years, tax included; `null` where it does not sell it. */
export function askedToRegister(registrar: Registrar, name: string, years: number): number | null {
  const prices = registrar.prices[name.slice(name.indexOf('.') + 1)];
  const { reserved, own } = unregistered(name);
  if (!prices || reserved) return null;
  const plain = own ? own.registerMinor + (years - 1) * own.renewMinor : prices.register + (years - 1) * prices.renew;
  return Math.round(plain * (1 + registrar.taxPercent / 100));
}
