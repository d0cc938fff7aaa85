import type { AccountFunding, Projection } from '@/core/ledger';
import { earliestEnd } from '@/core/time';
import type { FundingView } from './views';

const MOST_CHARGES = 400;
const MOST_LAPSING = 100;

/** An account's funding as a screen draws it: the first charges, and whatever fails. */
export function fundingView(ledger: Projection, { charges, lapsing, ...rest }: AccountFunding): FundingView {
  const named = (place: number) => {
    const { unicode, ascii } = ledger.names[place] as Projection['names'][number];
    return { unicode, ascii };
  };
  const first = charges.slice(0, MOST_CHARGES);
  // What fails is shown, however late it comes.
  const failing = charges.slice(MOST_CHARGES).filter((charge) => charge.outcome === 'fail');
  const shown = [...first, ...failing.slice(0, MOST_CHARGES)];
  return {
    ...rest,
    charges: shown.map((charge) => ({ ...charge, ...named(charge.place) })),
    chargeCount: charges.length,
    lapsing: lapsing.slice(0, MOST_LAPSING).map((place) => {
      const name = ledger.names[place] as Projection['names'][number];
      const own = ledger.charges[place] ?? [];
      const paid = own.filter((charge) => charge.outcome === 'pass').at(-1)?.newEnd ?? name.termEnd;
      const years = ledger.policies[place]?.terms.renew.least ?? 1;
      return { ...named(place), nameId: name.id, years, lapsesAt: paid ? earliestEnd(paid) : ledger.asOf };
    }),
    lapsingCount: lapsing.length,
  };
}
