import type { LedgerDay, LedgerRow, LedgerView } from '@/core/ledger';
import { type Assumptions, USUAL_ASSUMPTIONS } from '@/core/odds';
import {
  type DropMonth,
  dropPlan,
  type Forecast,
  type ForecastAsked,
  forecast,
  type OfferFacts,
  type Ranking,
  rankedName,
  rankNames,
  type Schedule,
  type Schedules,
  STANDS,
  type Stand,
  schedulesOf,
  type Valuing,
  valuing,
} from '@/core/prospects';
import type { Instant } from '@/core/time';
import type { DropMonthView, MonthCharges, RankedRow, RankingSums, RowView } from './views';

/** What is asked of a forecast; what is known of offers the worker has itself. */
export type ForecastWish = Omit<ForecastAsked, 'facts'>;

/** What names are judged by. */
export interface Judging {
  readonly assumptions: Assumptions;
  readonly view: LedgerView | null;
}

/** So long paths are played before others get their turn. */
const SLICE_MS = 24;

/** What Prospects works out beside the page: forecasts in slices, the ranking of names, the months of a schedule. */
export class ProspectsWork {
  #schedules: { key: string; today: LedgerDay; made: Schedules } | null = null;
  #ranked: { key: string; today: LedgerDay; facts: OfferFacts; valuing: Valuing; ranking: Ranking } | null = null;
  #running = 0;

  /** Stops the forecast that is being worked out: whoever asked for it is answered with nothing. */
  cancel(): void {
    this.#running += 1;
  }

  /** Works a forecast out, and tells how many paths are done; `null` when another was asked for meanwhile, or it was cancelled. */
  async forecast(
    today: LedgerDay,
    facts: OfferFacts,
    wish: ForecastWish,
    onProgress: (paths: number) => void,
  ): Promise<Forecast | null> {
    this.#running += 1;
    const mine = this.#running;
    const steps = forecast(today, { ...wish, facts }, this.#schedulesOf(today, wish.assumptions));
    for (;;) {
      const until = performance.now() + SLICE_MS;
      while (performance.now() < until) {
        const step = steps.next();
        if (step.done) return step.value.told;
        if (performance.now() >= until) onProgress(step.value);
      }
      await new Promise((goOn) => setTimeout(goOn));
      if (this.#running !== mine) return null;
    }
  }

  #schedulesOf(today: LedgerDay, { unknownPriceMinor, unknownBalanceMinor }: Assumptions): Schedules {
    const key = `${unknownPriceMinor} ${unknownBalanceMinor}`;
    if (this.#schedules?.today === today && this.#schedules.key === key) return this.#schedules.made;
    const made = schedulesOf(today, { ...USUAL_ASSUMPTIONS, unknownPriceMinor, unknownBalanceMinor });
    this.#schedules = { key, today, made };
    return made;
  }

  /** What is charged in a month if nothing is done, the dearest first. */
  monthCharges(today: LedgerDay, assumptions: Assumptions, month: number, limit: number): MonthCharges {
    const { names } = today.projection;
    const { first, month: months, minor }: Schedule = this.#schedulesOf(today, assumptions).standing;
    const found: { ascii: string; unicode: string; minor: number }[] = [];
    let [count, sum] = [0, 0];
    for (let place = 0; place < names.length; place += 1)
      for (let i = first[place] as number; i < (first[place + 1] as number); i += 1) {
        if (months[i] !== month) continue;
        count += 1;
        sum += minor[i] as number;
        found.push({ ascii: names.ascii(place), unicode: names.unicode(place), minor: minor[i] as number });
      }
    found.sort((a, b) => b.minor - a.minor);
    return { count, minor: sum, names: found.slice(0, limit) };
  }

  #rankingOf(today: LedgerDay, facts: OfferFacts, judging: Judging) {
    const key = JSON.stringify(judging);
    const known = this.#ranked;
    if (known?.today === today && known.key === key && known.facts === facts) return known;
    const judge = valuing(today, { facts, ...judging });
    const made = { key, today, facts, valuing: judge, ranking: rankNames(judge, facts) };
    this.#ranked = made;
    return made;
  }

  /** How many names stand how, and what dropping those that are not worth it saves. */
  ranking(today: LedgerDay, facts: OfferFacts, judging: Judging, only: Stand | null): RankingSums {
    const { ranking } = this.#rankingOf(today, facts, judging);
    return {
      total: only === null ? ranking.order.length : (ranking.counts[STANDS.indexOf(only)] ?? 0),
      counts: ranking.counts,
      savesMinor: ranking.savesMinor,
      gainMinor: ranking.gainMinor,
    };
  }

  /** Rows of the ranking in its order, all or those that stand in one way. */
  ranked(
    today: LedgerDay,
    facts: OfferFacts,
    judging: Judging,
    only: Stand | null,
    from: number,
    to: number,
    view: (row: LedgerRow) => RowView,
  ): RankedRow[] {
    const known = this.#rankingOf(today, facts, judging);
    const code = only === null ? -1 : STANDS.indexOf(only);
    const places =
      code < 0 ? known.ranking.order : known.ranking.order.filter((place) => known.ranking.stand[place] === code);
    const read = today.reader();
    return Array.from(places.slice(from, to), (place) => ({
      row: view(read(place)),
      ranked: rankedName(known.valuing, facts, known.ranking, place),
    }));
  }

  /** What is not worth its next year, by the month in which that is charged. */
  dropPlan(today: LedgerDay, facts: OfferFacts, judging: Judging, limit: number): DropMonthView[] {
    const known = this.#rankingOf(today, facts, judging);
    const { names } = today.projection;
    const { ranking } = known;
    return dropPlan(known.valuing, ranking).map(
      ({ places, ...month }: DropMonth): DropMonthView => ({
        ...month,
        from: month.from as Instant,
        nameIds: places.map((place) => names.columns.id[place] as number),
        lines: places.slice(0, limit).map((place) => ({
          nameId: names.columns.id[place] as number,
          ascii: names.ascii(place),
          unicode: names.unicode(place),
          at: known.valuing.costsOf(place)?.firstAt as Instant,
          costMinor: ranking.cost[place] as number,
          valueMinor: ranking.value[place] as number,
        })),
      }),
    );
  }
}
