import { todayOf } from '@/core/ledger';
import { convert } from '@/core/money';
import { chanceOfSale } from '@/core/odds';
import {
  type Forecast,
  forecast,
  type HitRate,
  hitRates,
  isBlocked,
  monthAt,
  monthScale,
  type NamedStrategy,
  type Said,
  type SaidInAll,
  type Strategy,
  saidInAll,
  type Valuing,
} from '@/core/prospects';
import { isRefusal, type Refusal, refuse } from '@/core/refusal';
import { isOneLine } from '@/core/text/plainText';
import { DAY_MS, dayOf, type Instant, startOfDay } from '@/core/time';
import {
  deleteForecast,
  type ForecastRow,
  insertForecast,
  selectForecast,
  selectForecasts,
  selectSoldSince,
} from '@/database/forecasts';
import { selectRates } from '@/database/rates';
import { selectCashSince } from '@/database/review';
import { changing } from '../changing';
import type { Deps } from '../deps';
import { projectedLedger } from '../names/ledger';
import { command } from '../people/command';
import { readRequest } from '../validate';
import { completed } from './assumptions';
import { offerFacts, viewOf } from './offerFacts';
import { ForecastRequest, KeepForecast, type StrategyForm } from './requests';

const USUAL_YEARS = 5;
const USUAL_PATHS = 1000;
/** What is asked without a seed is the same each time. */
const USUAL_SEED = 1;

/** A strategy as the core takes it. */
function strategyOf({ kind, yearlyMinor, share, nameIds = [], asked = [] }: StrategyForm): Strategy | Refusal {
  switch (kind) {
    case 'budget':
      return yearlyMinor === undefined
        ? refuse('strategy-incomplete', 'Say the yearly budget.', 'yearlyMinor')
        : { kind, yearlyMinor };
    case 'lower prices':
      return share === undefined
        ? refuse('strategy-incomplete', 'Say by what share prices fall.', 'share')
        : { kind, share };
    case 'thought':
      return { kind, dropped: nameIds, asked };
    default:
      return { kind };
  }
}

const STANDING: NamedStrategy = { label: 'as it stands', strategy: { kind: 'as it stands' } };

/** Works a forecast out on the server, as a window does: assumptions that are told are whole, without any it goes by the office's. */
async function worked(
  deps: Deps,
  request: Pick<ForecastRequest, 'assumptions' | 'years' | 'seed' | 'paths'>,
  strategies: readonly NamedStrategy[],
): Promise<{ readonly told: Forecast; readonly valuing: Valuing }> {
  const projection = await projectedLedger(deps);
  const today = todayOf(projection);
  const assumptions = request.assumptions ? completed(request.assumptions) : projection.index.rules.assumptions;
  const [facts, view] = await Promise.all([offerFacts(deps), viewOf(deps.database, assumptions)]);
  const { years = USUAL_YEARS, seed = USUAL_SEED, paths = USUAL_PATHS } = request;
  const steps = forecast(today, { assumptions, view, facts, strategies, months: years * 12, seed, paths });
  for (;;) {
    const step = steps.next();
    if (step.done) return { told: step.value.told, valuing: step.value.valuing };
  }
}

/** A forecast of the ledger by some strategies; without any as it stands. */
export async function forecastNow(deps: Deps, input: unknown): Promise<Forecast | Refusal> {
  const request = await readRequest(ForecastRequest, input ?? {});
  if (isRefusal(request)) return request;
  const strategies: NamedStrategy[] = [];
  for (const form of request.strategies ?? []) {
    const strategy = strategyOf(form);
    if (isRefusal(strategy)) return strategy;
    strategies.push({ label: form.kind, strategy });
  }
  return (await worked(deps, request, strategies.length > 0 ? strategies : [STANDING])).told;
}

/** Keeps a forecast, to be held against what happens. Answers its id. */
export const keepForecast = command('keepForecast', async (deps: Deps, input: unknown): Promise<number | Refusal> => {
  const request = await readRequest(KeepForecast, input);
  if (isRefusal(request)) return request;
  const label = request.label.trim();
  if (label === '' || !isOneLine(label)) return refuse('forecast-label', 'Write the name in one line.', 'label');
  const { told, valuing } = await worked(deps, request, [STANDING]);
  const { book, assumptions } = valuing;
  const [fan] = told.fans;
  if (!fan || isBlocked(told.lacking, assumptions))
    return refuse(
      'forecast-lacking',
      'A price, a balance or a rate is not known yet: say it, or what stands in for a price or a balance.',
    );
  const id = valuing.today.projection.names.columns.id;
  return changing(deps, (tx, { at }) =>
    insertForecast(tx, {
      label,
      madeAt: at,
      madeBy: deps.by ?? 'office',
      currency: told.currency,
      months: told.months.length,
      seed: told.seed,
      paths: told.paths,
      assumptions,
      openingMinor: told.openingMinor,
      fan,
      costs: told.costs,
      rates: book.groups.map(({ key, rate }) => ({ key, ...rate })),
      nameIds: Array.from(book.places, (place) => id[place] as number),
      groups: Array.from(book.group),
      factors: Array.from(book.factor),
    }),
  );
});

export type KeptForecast = ForecastRow;

export function keptForecasts(deps: Deps): Promise<KeptForecast[]> {
  return selectForecasts(deps.database);
}

export const dropForecast = command('dropForecast', async (deps: Deps, id: number): Promise<true | Refusal> => {
  const there = await changing(deps, (tx) => deleteForecast(tx, id));
  return there || refuse('forecast-unknown', 'This forecast is no longer there.');
});

/** A kept forecast held against what has happened since. Amounts are minor units of its currency. */
export interface LookingBack {
  readonly forecast: KeptForecast;
  /** Years since it was made. */
  readonly elapsedYears: number;
  /** The balance at the end of each month that is over, by what was spent and received; `null` where a rate is missing. */
  readonly actual: readonly (number | null)[];
  readonly hitRates: readonly HitRate[];
  readonly inAll: SaidInAll;
}

const YEAR_MS = 365.25 * DAY_MS;

export async function lookBack(deps: Deps, id: number): Promise<LookingBack | Refusal> {
  const kept = await selectForecast(deps.database, id);
  if (!kept) return refuse('forecast-unknown', 'This forecast is no longer there.');
  const { nameIds, groups, factors, ...row } = kept;
  const now = deps.clock();
  const elapsedYears = Math.max(0, (now - row.madeAt) / YEAR_MS);
  const sold = await selectSoldSince(deps.database, nameIds, row.madeAt, now);
  const said = nameIds.map((nameId, i): Said => {
    const rate = row.rates[groups[i] as number] ?? { sales: 0, nameYears: 1 };
    return { chance: chanceOfSale(rate, factors[i] as number, 0, elapsedYears), happened: sold.has(nameId) };
  });
  return {
    forecast: row,
    elapsedYears,
    actual: await actualBalances(deps, row, now),
    hitRates: hitRates(said),
    inAll: saidInAll(said),
  };
}

/** What the balance came to at the end of each month since, for names that were there when the forecast was made. */
async function actualBalances(
  deps: Deps,
  { madeAt, currency, openingMinor, months }: ForecastRow,
  now: Instant,
): Promise<(number | null)[]> {
  const [cash, rates] = await Promise.all([
    selectCashSince(deps.database, dayOf(madeAt), new Date(madeAt)),
    selectRates(deps.database),
  ]);
  const scale = monthScale(madeAt);
  const sums: (number | null)[] = new Array<number | null>(Math.min(months, Math.max(0, monthAt(scale, now)))).fill(0);
  for (const { day, currency: of, minor } of cash) {
    const month = monthAt(scale, startOfDay(day));
    if (month < 0 || month >= sums.length) continue;
    const converted = convert({ minor, currency: of }, currency, rates, day);
    const before = sums[month] as number | null;
    sums[month] = converted === null || before === null ? null : before + converted.minor;
  }
  let balance: number | null = openingMinor;
  return sums.map((sum) => {
    balance = balance === null || sum === null ? null : balance + sum;
    return balance;
  });
}
