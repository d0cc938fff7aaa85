import { NO_FEES } from '../selling';
import type { OfferBook } from './offerBook';
import type { Schedule } from './schedule';

/** A book of names made for tests: by name its group, factor, asking price; and the groups' rates of sale. */
export function bookOf(
  names: readonly {
    readonly group?: number;
    readonly factor?: number;
    readonly asking?: number;
    readonly from?: number;
  }[],
  rates: readonly { readonly sales: number; readonly nameYears: number }[],
  share: OfferBook['share'] = { median: 1, sigma: 0 },
): OfferBook {
  return {
    places: Int32Array.from(names, (_, i) => i),
    group: Uint16Array.from(names, ({ group = 0 }) => group),
    factor: Float64Array.from(names, ({ factor = 1 }) => factor),
    isSaid: new Uint8Array(names.length),
    asking: Float64Array.from(names, ({ asking = 100 }) => asking),
    minimum: new Float64Array(names.length),
    from: Float64Array.from(names, ({ from = 0 }) => from),
    fees: new Uint16Array(names.length),
    feeList: [NO_FEES],
    groups: rates.map((rate, i) => ({
      key: String(i),
      names: names.filter(({ group = 0 }) => group === i).length,
      seen: { sales: 0, nameYears: 0 },
      rate,
    })),
    share,
    shareFrom: 'usual',
    pricedSales: 0,
    at: Int32Array.from(names, (_, i) => i),
    offers: new Map(),
    visits: new Map(),
    noRate: 0,
    selling: new Set(),
  };
}

/** A schedule made for tests: of each name its charges, as month and cost, and where in months it ends. */
export function scheduleOf(
  names: readonly { readonly charges?: readonly (readonly [month: number, minor: number])[]; readonly until: number }[],
): Schedule {
  const all = names.map(({ charges = [], until }) => charges.map(([month, minor]) => ({ month, minor, until })));
  const first = new Int32Array(names.length + 1);
  for (const [i, charges] of all.entries()) first[i + 1] = (first[i] as number) + charges.length;
  const flat = all.flat();
  return {
    first,
    month: Int16Array.from(flat, ({ month }) => month),
    minor: Float64Array.from(flat, ({ minor }) => minor),
    endAt: Float32Array.from(flat, ({ until }) => until),
    paidTo: Float64Array.from(names, ({ until }) => until),
    unpriced: [],
    unrated: [],
  };
}
