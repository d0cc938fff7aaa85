/** Which RDAP servers serve which endings: the file of RFC 9224, in the layout IANA publishes. */
export interface Bootstrap {
  /** Base addresses by ending, without a dot; each ends with a slash. */
  readonly services: ReadonlyMap<string, readonly string[]>;
  readonly publication: string | null;
}

/** Reads a bootstrap file for domains; `null` when it is none. */
export function readBootstrap(json: unknown): Bootstrap | null {
  const file = json as { version?: unknown; publication?: unknown; services?: unknown };
  if (typeof json !== 'object' || json === null || file.version !== '1.0' || !Array.isArray(file.services)) return null;
  const services = new Map<string, readonly string[]>();
  for (const service of file.services) {
    if (!Array.isArray(service) || !Array.isArray(service[0]) || !Array.isArray(service[1])) return null;
    const bases = service[1]
      .filter((base): base is string => typeof base === 'string' && /^https?:\/\//.test(base))
      .map((base) => (base.endsWith('/') ? base : `${base}/`))
      // RFC 9224 section 3: secure addresses first.
      .sort((a, b) => Number(b.startsWith('https')) - Number(a.startsWith('https')));
    for (const ending of service[0]) if (typeof ending === 'string') services.set(ending.toLowerCase(), bases);
  }
  return { services, publication: typeof file.publication === 'string' ? file.publication : null };
}

/** The servers for a name: those of its longest ending that is listed (RFC 9224 section 4). */
export function serversFor(bootstrap: Bootstrap, ascii: string): readonly string[] {
  const labels = ascii.toLowerCase().split('.');
  for (let i = 1; i < labels.length; i += 1) {
    const bases = bootstrap.services.get(labels.slice(i).join('.'));
    if (bases) return bases;
  }
  return [];
}
