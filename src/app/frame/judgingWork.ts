import { type LedgerDay, type LedgerRow, rowsNear, viewFromQuery } from '@/core/ledger';
import { type Forecast, type OfferFacts, type Stand, type Valuing, valuing } from '@/core/prospects';
import { bestSet, judgeAll, RESCUE_DAYS } from '@/core/rescue';
import { unpacked } from '@/core/table';
import type { ProspectsBody } from '@/usecases/prospects/body';
import { type ForecastWish, type Judging, ProspectsWork } from './prospectsWork';
import { rescueView } from './rescueView';
import type { AllJudgedView, DropMonthView, MonthCharges, RankedRow, RankingSums, RescueView, RowView } from './views';

/** The ledger that the worker holds. */
interface Held {
  readonly today: () => LedgerDay;
  /** Names its state; `null` before it was read. */
  readonly version: () => string | null;
  readonly seen: (row: LedgerRow) => RowView;
}

/** What is known of own names on offer: fetched where it is asked for, once for each state of the ledger. */
function offersOnce(version: Held['version']): () => Promise<ProspectsBody> {
  let known: { readonly version: string | null; readonly body: Promise<ProspectsBody> } | null = null;
  return () => {
    const now = version();
    if (known?.version === now) return known.body;
    const body = fetch('/prospects/data', { cache: 'no-cache' }).then(async (response) => {
      if (!response.ok) throw new Error(`the offers answered ${response.status}`);
      return unpacked<ProspectsBody>(await response.arrayBuffer());
    });
    const mine = { version: now, body };
    known = mine;
    body.catch(() => {
      // What failed is not kept: it is asked for again.
      if (known === mine) known = null;
    });
    return body;
  };
}

/** Everything that the worker judges names by: verdicts, forecasts, what a name's next year is worth. */
export function judgingWork({ today, version, seen }: Held) {
  const offers = offersOnce(version);
  const prospects = new ProspectsWork();
  let judging: { readonly today: LedgerDay; readonly facts: OfferFacts; readonly made: Valuing } | null = null;

  /** What names are judged by as the office has said it, today. */
  async function officeValuing(): Promise<Valuing> {
    const { facts, view: query } = await offers();
    const now = today();
    if (judging?.today === now && judging.facts === facts) return judging.made;
    const view = query === null ? null : viewFromQuery(new URLSearchParams(query));
    const made = valuing(now, { facts, assumptions: now.projection.index.rules.assumptions, view });
    judging = { today: now, facts, made };
    return made;
  }

  return {
    /** What is past its term, or going there because nothing keeps it, with a verdict. */
    async rescue(): Promise<RescueView> {
      return rescueView(await officeValuing(), seen);
    },

    /** Ids of the best set of names in danger under a budget of one currency. */
    async bestSet(currency: string, minor: number): Promise<number[]> {
      const judge = await officeValuing();
      const { asOf } = judge.today.projection;
      return bestSet(rowsNear(judge.today, RESCUE_DAYS), asOf, judge, { currency, minor });
    },

    /** Every name judged for its next renewal, what should be let go first; the first `limit` of them. */
    async judgeAll(limit: number): Promise<AllJudgedView> {
      const judge = await officeValuing();
      const { names, ...sums } = judgeAll(judge.today.everyRow(), judge);
      return { ...sums, rows: names.slice(0, limit).map(({ row, judgement }) => ({ row: seen(row), judgement })) };
    },

    /** Works a forecast out, and tells how many paths are done; `null` when another was asked for meanwhile, or it was cancelled. */
    async forecast(wish: ForecastWish, onProgress: (paths: number) => void): Promise<Forecast | null> {
      const { facts } = await offers();
      return prospects.forecast(today(), facts, wish, onProgress);
    },

    cancelForecast(): void {
      prospects.cancel();
    },

    /** What is charged in a month if nothing is done. */
    monthCharges(assumptions: ForecastWish['assumptions'], month: number, limit: number): MonthCharges {
      return prospects.monthCharges(today(), assumptions, month, limit);
    },

    /** How many names stand how, and what dropping those that are not worth it saves. */
    async ranking(by: Judging, only: Stand | null): Promise<RankingSums> {
      return prospects.ranking(today(), (await offers()).facts, by, only);
    },

    /** Names by what their next year is worth, what wants a decision first. */
    async ranked(by: Judging, only: Stand | null, from: number, to: number): Promise<RankedRow[]> {
      return prospects.ranked(today(), (await offers()).facts, by, only, from, to, seen);
    },

    /** What is not worth its next year, by the month in which that is charged. */
    async dropPlan(by: Judging, limit: number): Promise<DropMonthView[]> {
      return prospects.dropPlan(today(), (await offers()).facts, by, limit);
    },
  };
}
