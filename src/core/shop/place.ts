/** What has to be set in DNS for a name to lead to its window: addresses, or the host that has them, or name servers that say so. */
export interface WindowPlace {
  readonly a: readonly string[];
  readonly aaaa: readonly string[];
  /** For `www` and the like: no name has one at its top (RFC 1034 section 3.6.2). */
  readonly cname: string | null;
  readonly nameServers: readonly string[];
}

/** A record to set, as zone files and registrars' forms have it. */
export interface WindowRecord {
  readonly owner: string;
  readonly type: 'A' | 'AAAA' | 'CNAME' | 'NS';
  readonly data: string;
}

/** What to set at a name's zone: addresses at its top, `www` by the host or the same addresses. Empty where the office has not said its place. */
export function windowRecords({ a, aaaa, cname }: WindowPlace): WindowRecord[] {
  const at = (owner: string): WindowRecord[] => [
    ...a.map((data) => ({ owner, type: 'A' as const, data })),
    ...aaaa.map((data) => ({ owner, type: 'AAAA' as const, data })),
  ];
  return [...at('@'), ...(cname === null ? at('www') : [{ owner: 'www', type: 'CNAME' as const, data: `${cname}.` }])];
}

/** What DNS shows of a name. */
export interface SeenPlace {
  readonly a: readonly string[];
  readonly aaaa: readonly string[];
  readonly nameServers: readonly string[];
}

const plainHost = (host: string) => host.toLowerCase().replace(/\.$/, '');

/**
 * Whether a name leads to its window: every address that it shows is one of the place, and there is one; or it is at the place's name servers.
 * One foreign address is enough to lead buyers astray.
 */
export function leadsTo(place: WindowPlace, seen: SeenPlace): boolean {
  const isIn = (known: readonly string[], found: readonly string[]) => {
    const all = new Set(known.map(plainHost));
    return found.every((one) => all.has(plainHost(one)));
  };
  const addresses = seen.a.length + seen.aaaa.length;
  if (addresses > 0 && place.a.length + place.aaaa.length > 0)
    return isIn(place.a, seen.a) && isIn(place.aaaa, seen.aaaa);
  return place.nameServers.length > 0 && seen.nameServers.length > 0 && isIn(place.nameServers, seen.nameServers);
}
