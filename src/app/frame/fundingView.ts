import { type AccountFunding, type Projection, policyOf } from '@/core/ledger';
import { earliestEnd } from '@/core/time';
import type { FundingView } from './views';

const MOST_CHARGES = 400;
const MOST_LAPSING = 100;

/** An account's funding as a screen draws it: the first charges, and whatever fails. */
export function fundingView(ledger: Projection, { charges, lapsing, ...rest }: AccountFunding): FundingView {
  const { names } = ledger;
  const named = (place: number) => ({ unicode: names.unicode(place), ascii: names.ascii(place) });
  const first = charges.slice(0, MOST_CHARGES);
  // What fails is shown, however late it comes.
  const failing = charges.slice(MOST_CHARGES).filter((charge) => charge.outcome === 'fail');
  const shown = [...first, ...failing.slice(0, MOST_CHARGES)];
  return {
    ...rest,
    charges: shown.map((charge) => ({ ...charge, ...named(charge.place) })),
    chargeCount: charges.length,
    lapsing: lapsing.slice(0, MOST_LAPSING).map((place) => {
      const passed = ledger.charges.of(place).filter((charge) => charge.outcome === 'pass');
      const paid = passed.at(-1)?.newEnd ?? names.termEnd(place);
      const years = policyOf(ledger, place).terms.renew.least;
      return {
        ...named(place),
        nameId: names.columns.id[place] as number,
        years,
        lapsesAt: paid ? earliestEnd(paid) : ledger.asOf,
      };
    }),
    lapsingCount: lapsing.length,
  };
}
