import type { Charge, ChargedState } from '../funding';
import type { Marks, Phase } from '../lifecycle';
import type { Instant, TermEnd } from '../time';

/** What happens to a name next if nothing is done. Its words are the interface's. */
export type Outlook =
  | { readonly kind: 'charged'; readonly charge: Charge }
  | { readonly kind: 'charge fails'; readonly charge: Charge }
  /** `ifOff`: nobody has said whether the registrar renews it by itself. */
  | { readonly kind: 'lapses'; readonly end: TermEnd; readonly ifOff: boolean }
  | { readonly kind: 'late until'; readonly at: Instant }
  | { readonly kind: 'auctioned'; readonly at: Instant }
  | { readonly kind: 'restore by'; readonly at: Instant }
  | { readonly kind: 'report due'; readonly at: Instant }
  | { readonly kind: 'pending transfer' }
  | { readonly kind: 'available from'; readonly at: Instant }
  | { readonly kind: 'available since'; readonly at: Instant }
  | { readonly kind: 'unknown' };

/** The next thing to happen to a name in `phase` with these marks and charges on `day`. */
export function outlookOf(phase: Phase, marks: Marks, state: ChargedState, day: Instant): Outlook {
  if (state.coming?.outcome === 'fail') return { kind: 'charge fails', charge: state.coming };
  if (state.coming) return { kind: 'charged', charge: state.coming };
  switch (phase) {
    case 'refundable':
    case 'term':
      return { kind: 'lapses', end: state.termEnd, ifOff: state.setting === 'unknown' };
    case 'pending transfer':
      return { kind: 'pending transfer' };
    case 'late':
      if (marks.auction !== null && day < marks.auction) return { kind: 'auctioned', at: marks.auction };
      return { kind: 'late until', at: marks.deletion };
    case 'redemption':
      return { kind: 'restore by', at: marks.redemptionEnd };
    case 'pending restore':
      return { kind: 'report due', at: marks.restoreReportDue ?? marks.redemptionEnd };
    case 'pending delete':
      return { kind: 'available from', at: marks.release };
    case 'available':
      return { kind: 'available since', at: marks.release };
  }
}

/** True when what comes next loses the name, or loses money that need not be lost. */
export function isCaution(outlook: Outlook): boolean {
  return (
    outlook.kind === 'charge fails' ||
    outlook.kind === 'restore by' ||
    outlook.kind === 'report due' ||
    outlook.kind === 'auctioned'
  );
}
