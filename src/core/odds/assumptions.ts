/** By what names are put into groups that share a chance of sale. */
export const GROUPINGS = ['ending', 'tag', 'asking', 'view'] as const;
export type Grouping = (typeof GROUPINGS)[number];

/**
 * Everything that is assumed of selling names and of money, said by the office. Shares are 0 to 1, amounts minor units of the home currency;
 * `null` leaves it to what is known.
 */
export interface Assumptions {
  readonly grouping: Grouping;
  /** The saved view whose names are one group, the others another. */
  readonly viewId: number | null;
  /** Sales in a name-year before own sales are counted, and in how many name-years that is taken to have been seen: the more, the firmer. */
  readonly chance: number;
  readonly nameYears: number;
  /** Own sales, and all the years in which names were on offer, are counted in. */
  readonly countOwnSales: boolean;
  /** What share of the asking price is paid, and the spread of its logarithm; `null`: by own sales, or the usual. */
  readonly medianShare: number | null;
  readonly shareSigma: number | null;
  /** What is kept of a price where a name is listed at no marketplace. */
  readonly commission: number;
  /** A name somebody has made an offer for, or bid on, within a year is so many times as likely to be sold. */
  readonly offerFactor: number;
  /** A name whose window was opened at least so often in 90 days is so many times as likely to be sold. */
  readonly visitFactor: number;
  readonly visitsFrom: number;
  /** By how much a year money now is worth more than money later. */
  readonly interest: number;
  /** How much the chance answers to the price: λ × (1 − x)^(−ε) where every price falls by x. */
  readonly elasticity: number;
  /** Money beside the balances at the registrars, and what the money should never fall below. */
  readonly cashMinor: number;
  readonly floorMinor: number;
  /** What stands in for a renewal price, and for a balance, that nobody knows. */
  readonly unknownPriceMinor: number | null;
  readonly unknownBalanceMinor: number | null;
}

/** From where to where a figure may be assumed: what the screen takes, and what a request may say. */
export const ASSUMPTION_LIMITS = {
  chance: [0, 1],
  nameYears: [1, 1_000_000],
  medianShare: [0.01, 5],
  shareSigma: [0, 3],
  commission: [0, 1],
  offerFactor: [0, 100],
  visitFactor: [0, 100],
  visitsFrom: [1, 1_000_000],
  interest: [0, 1],
  elasticity: [0, 10],
} as const satisfies Partial<Record<keyof Assumptions, readonly [number, number]>>;

/** What is assumed until somebody says otherwise. No source: 2 sales in 100 name-years, to be moved. */
export const USUAL_ASSUMPTIONS: Assumptions = {
  grouping: 'ending',
  viewId: null,
  chance: 0.02,
  nameYears: 100,
  countOwnSales: true,
  medianShare: null,
  shareSigma: null,
  commission: 0.15,
  offerFactor: 1,
  visitFactor: 1,
  visitsFrom: 30,
  interest: 0.08,
  elasticity: 1,
  cashMinor: 0,
  floorMinor: 0,
  unknownPriceMinor: null,
  unknownBalanceMinor: null,
};

/** What money of next year is worth this year. */
export const discountOf = ({ interest }: Pick<Assumptions, 'interest'>) => 1 / (1 + interest);
