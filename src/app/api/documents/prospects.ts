import type { ReviewLine } from '@/core/journal';
import { type Assumptions, GROUPINGS } from '@/core/odds';
import {
  type Compared,
  FAN_LINES,
  type Fan,
  type Forecast,
  type GroupTold,
  type HitRate,
  INPUTS,
  type Mover,
  STANDS,
} from '@/core/prospects';
import type { AllAssumptions, NamedAssumptions } from '@/usecases/prospects/assumptions';
import type { KeptForecast, LookingBack } from '@/usecases/prospects/forecasts';
import type { DropListMonth, WorthOfName, WorthOfNames } from '@/usecases/prospects/names';
import type { Review, ReviewedEntries, ReviewedEntry } from '@/usecases/prospects/review';
import {
  amountOf,
  day,
  documentOf,
  figure,
  from,
  instant,
  list,
  money,
  named,
  oneOf,
  orNull,
  text,
  whole,
  yesNo,
} from '../kinds';

export const assumptions = named(
  'Assumptions',
  documentOf<Assumptions>()({
    grouping: oneOf(...GROUPINGS),
    viewId: orNull(whole),
    chance: figure,
    nameYears: figure,
    countOwnSales: yesNo,
    medianShare: orNull(figure),
    shareSigma: orNull(figure),
    commission: figure,
    offerFactor: figure,
    visitFactor: figure,
    visitsFrom: figure,
    interest: figure,
    elasticity: figure,
    cashMinor: whole,
    floorMinor: whole,
    unknownPriceMinor: orNull(whole),
    unknownBalanceMinor: orNull(whole),
  }),
);

const set = documentOf<NamedAssumptions>()({ id: whole, label: text, assumptions });

export const allAssumptions = documentOf<AllAssumptions>()({ inUse: assumptions, sets: list(set) });

/** Amounts of simulations are means over paths: told as numbers of minor units, not as money. */
const fan = named(
  'Fan',
  documentOf<Fan>()({
    strategy: from(({ label }: Fan) => label, text),
    paths: whole,
    percentiles: from(() => [...FAN_LINES] as number[], list(whole)),
    linesMinor: from(({ lines }: Fan) => lines, list(list(figure))),
    unsold: list(figure),
    short: list(figure),
    carries: figure,
    saleInYear: figure,
    saleInFive: orNull(figure),
    usuallyShort: orNull(whole),
    profitMinor: from(
      ({ profit }: Fan) => profit,
      documentOf<Fan['profit']>()({ mean: figure, spread: figure, worstTenth: figure }),
    ),
    namesSold: figure,
  }),
);

const group = documentOf<GroupTold>()({
  key: text,
  names: whole,
  sales: from(({ seen }: GroupTold) => seen.sales, whole),
  nameYears: from(({ seen }: GroupTold) => seen.nameYears, figure),
  rate: from(
    ({ spread }: GroupTold) => spread,
    documentOf<GroupTold['spread']>()({ mean: figure, low: figure, high: figure }),
  ),
});

const mover = documentOf<Mover>()({
  input: oneOf(...INPUTS),
  low: figure,
  high: figure,
  profitLowMinor: from(({ profitLow }: Mover) => profitLow, figure),
  profitHighMinor: from(({ profitHigh }: Mover) => profitHigh, figure),
});

const compared = documentOf<Compared>()({
  differenceMinor: from(({ difference }: Compared) => difference, figure),
  standardErrorMinor: from(({ standardError }: Compared) => standardError, figure),
  better: figure,
  same: figure,
});

export const forecast = documentOf<Forecast>()({
  asOf: instant,
  currency: text,
  months: list(text),
  seed: whole,
  paths: whole,
  opening: amountOf(({ openingMinor: minor, currency }: Forecast) => ({ minor, currency })),
  lacking: from(
    ({ lacking }: Forecast) => lacking,
    documentOf<Forecast['lacking']>()({
      unpriced: from(({ unpricedCount }: Forecast['lacking']) => unpricedCount, whole),
      accountsWithoutBalance: from(({ balances }: Forecast['lacking']) => balances, list(whole)),
      currenciesWithoutRate: from(({ currencies }: Forecast['lacking']) => currencies, list(text)),
      noRate: whole,
      noEnd: whole,
      noSetting: whole,
    }),
  ),
  fans: list(fan),
  compared: list(compared),
  costsMinor: from(({ costs }: Forecast) => costs, list(figure)),
  movers: list(mover),
  groups: list(group),
  share: from(({ share }: Forecast) => share, documentOf<Forecast['share']>()({ median: figure, sigma: figure })),
  shareFrom: oneOf('said', 'own sales', 'usual'),
  offered: whole,
  beingSold: whole,
});

export const kept = documentOf<KeptForecast>()({
  id: whole,
  label: text,
  madeAt: instant,
  currency: text,
  months: whole,
  seed: whole,
  paths: whole,
  opening: amountOf(({ openingMinor: minor, currency }: KeptForecast) => ({ minor, currency })),
  fan,
  costsMinor: from(({ costs }: KeptForecast) => costs, list(figure)),
});

const hitRate = documentOf<HitRate>()({
  from: figure,
  to: figure,
  count: whole,
  said: figure,
  seen: figure,
  low: figure,
  high: figure,
});

export const lookingBack = documentOf<LookingBack>()({
  forecast: kept,
  elapsedYears: figure,
  actualMinor: from(({ actual }: LookingBack) => actual, list(orNull(figure))),
  hitRates: list(hitRate),
  said: from(({ inAll }: LookingBack) => inAll.said, figure),
  seen: from(({ inAll }: LookingBack) => inAll.seen, whole),
});

const worth = documentOf<WorthOfName>()({
  name: from(({ ascii }: WorthOfName) => ascii, text),
  stand: oneOf(...STANDS),
  chargedAt: orNull(instant),
  cost: orNull(money),
  chance: orNull(figure),
  proceeds: orNull(money),
  value: orNull(money),
  leastAsking: orNull(money),
  like: orNull(money),
  factor: figure,
  offers: whole,
});

export const worthOfNames = documentOf<WorthOfNames>()({ total: whole, names: list(worth) });

export const dropMonth = documentOf<DropListMonth>()({ month: text, saves: money, gain: money, names: list(text) });

const line = documentOf<ReviewLine>()({
  key: text,
  names: whole,
  sales: whole,
  cost: orNull(money),
  price: orNull(money),
  fees: orNull(money),
  proceeds: orNull(money),
  surplus: orNull(money),
  profit: orNull(money),
  yearlyReturn: orNull(figure),
});

export const review = documentOf<Review>()({
  year: orNull(whole),
  by: oneOf('year', 'ending', 'tag', 'account'),
  currency: from(({ homeCurrency }: Review) => homeCurrency, text),
  lines: list(line),
  whole: line,
});

const entry = documentOf<ReviewedEntry>()({
  id: whole,
  name: from(({ ascii }: ReviewedEntry) => ascii, text),
  account: text,
  day,
  kind: text,
  part: oneOf('cost', 'price', 'fee'),
  amount: amountOf(({ minor, currency }: ReviewedEntry) => ({ minor, currency })),
  inHome: orNull(money),
  paidBy: from(({ paymentMethod }: ReviewedEntry) => paymentMethod, text),
  receipt: from(({ reference }: ReviewedEntry) => reference, text),
  note: text,
  takesBack: from(({ isCounter }: ReviewedEntry) => isCounter, yesNo),
});

export const reviewEntries = documentOf<ReviewedEntries>()({ total: whole, sum: orNull(money), entries: list(entry) });
