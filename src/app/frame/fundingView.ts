import { type AccountFunding, lapseAt, type Projection } from '@/core/ledger';
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
    lapsing: lapsing.slice(0, MOST_LAPSING).map((place) => ({
      ...named(place),
      nameId: names.columns.id[place] as number,
      ...lapseAt(ledger, place),
    })),
    lapsingCount: lapsing.length,
  };
}
