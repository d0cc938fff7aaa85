import type { Charge, FailureCause } from '../funding';
import type { LedgerRow } from './projection';

/** The one thing that makes a stalled name sure again. */
export type Mending =
  /** The next try passes as things are. */
  | { readonly kind: 'wait'; readonly charge: Charge }
  /** The next try fails: money or a card is wanted before it. */
  | { readonly kind: 'fund'; readonly charge: Charge; readonly cause: FailureCause }
  /** The registrar does not try again by itself. */
  | { readonly kind: 'renew' }
  /** Past its late window: only a restore helps. */
  | { readonly kind: 'restore' };

/** How a row whose automatic charge failed is mended, or `null` when it is not stalled or nothing can be done any more. */
export function mendingOf({ setting, phase, coming }: LedgerRow): Mending | null {
  if (setting !== 'stalled' || phase === null) return null;
  if (phase === 'redemption') return { kind: 'restore' };
  if (coming?.outcome === 'pass') return { kind: 'wait', charge: coming };
  if (coming?.cause) return { kind: 'fund', charge: coming, cause: coming.cause };
  return phase === 'term' || phase === 'refundable' || phase === 'late' ? { kind: 'renew' } : null;
}
