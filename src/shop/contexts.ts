import { createSecureContext, type SecureContext } from 'node:tls';
import { LRUCache } from 'lru-cache';
import type { Deps } from '@/usecases/deps';
import { certificateOf } from '@/usecases/shop/certificates';

/** A certificate that was renewed is taken up within so long. */
const KEPT_MS = 60_000;
const MOST_KEPT = 2000;

/** What each host proves itself by, read when it is asked for and kept for a minute. */
export class SecureContexts {
  private readonly kept = new LRUCache<string, Promise<SecureContext | null>>({ max: MOST_KEPT, ttl: KEPT_MS });

  constructor(private readonly deps: Deps) {}

  /** The context of a host; `null` for one without a certificate. `www.` stands in the certificate of its name, where it leads here too. */
  of(asked: string): Promise<SecureContext | null> {
    const host = asked.toLowerCase().replace(/^www\./, '');
    const known = this.kept.get(host);
    if (known) return known;
    const made = certificateOf(this.deps, host).then(
      (found) => found && createSecureContext({ cert: found.chain, key: found.key, minVersion: 'TLSv1.2' }),
    );
    this.kept.set(host, made);
    // What failed is asked again.
    made.catch(() => this.kept.delete(host));
    return made;
  }
}
