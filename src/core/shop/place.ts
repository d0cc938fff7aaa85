/** What has to be set in DNS for a name to lead to its window: addresses, or the host that has them, or name servers that say so. */
export interface WindowPlace {
  readonly a: readonly string[];
  readonly aaaa: readonly string[];
  /** For `www` and the like: no name has one at its top (RFC 1034 section 3.6.2). */
  readonly cname: string | null;
  readonly nameServers: readonly string[];
}
