import {
  CONSEQUENCES,
  chargeDays,
  type LedgerDay,
  type LedgerRow,
  rowsNear,
  TODAY_DAYS,
  todayLists,
  todaySummary,
  worthIn,
} from '@/core/ledger';
import { planMoves } from '@/core/moving';
import { isRefusal, type Refusal, refuse } from '@/core/refusal';

import { namesInDanger, RESCUE_DAYS } from '@/core/rescue';
import { addDays, formatInstant, type Instant } from '@/core/time';
import type { Deps } from '../deps';
import { namesUnderWay } from '../moving/underWay';
import { officeValuing } from '../prospects/offerFacts';
import { arrangeLedger } from './list';
import { accountLabels, moneyDocument, nameDocument } from './nameDocument';

const at = (instant: Instant | null) => (instant === null ? null : formatInstant(instant));

/** The ledger as it is today. */
async function today(deps: Deps): Promise<LedgerDay | Refusal> {
  const arranged = await arrangeLedger(deps, new URLSearchParams());
  return isRefusal(arranged) ? arranged : arranged.ledger;
}

const documentIn =
  ({ projection, day }: LedgerDay) =>
  (row: LedgerRow) =>
    nameDocument(row, projection, day);

/** What needs a decision today, by what doing nothing leads to, and the charges of the next days. */
export async function decisionsToday(deps: Deps) {
  const ledger = await today(deps);
  if (isRefusal(ledger)) return ledger;
  const { projection } = ledger;
  const { asOf, index, names } = projection;
  const lists = todayLists(rowsNear(ledger, TODAY_DAYS), asOf, worthIn(index.rules, asOf), index.rules.zone);
  const days = chargeDays(projection, addDays(asOf, TODAY_DAYS));
  const sums = todaySummary(lists, days);
  return {
    asOf: formatInstant(asOf),
    lost: sums.lost,
    lostBy: at(sums.lostBy),
    wouldSaveThem: sums.saving.map(moneyDocument),
    withoutPrice: sums.savingUnpriced,
    charges: days.map(({ places, amounts, ...day }) => ({
      day: day.day,
      names: places.map((place) => names.ascii(place)),
      amounts: amounts.map(moneyDocument),
    })),
    failing: sums.fails,
    failingFrom: at(sums.failsFrom),
    ...(Object.fromEntries(
      CONSEQUENCES.map((consequence, i) => [WORDS[consequence], lists[i]?.rows.map(documentIn(ledger)) ?? []]),
    ) as Record<(typeof WORDS)[keyof typeof WORDS], ReturnType<typeof nameDocument>[]>),
  };
}

const WORDS = { lost: 'lostNames', 'stops working': 'stopWorking', dearer: 'getDearer' } as const;

/** What is past its term, or going there because nothing keeps it: whether it is worth its cost, and why. */
export async function verdicts(deps: Deps) {
  const ledger = await today(deps);
  if (isRefusal(ledger)) return ledger;
  const { asOf, index } = ledger.projection;
  const judged = namesInDanger(
    rowsNear(ledger, RESCUE_DAYS),
    asOf,
    await officeValuing(deps, ledger),
    worthIn(index.rules, asOf),
  );
  return {
    asOf: formatInstant(asOf),
    names: judged.map(({ row, judgement: { verdict, reason, always, cost, value } }) => ({
      name: documentIn(ledger)(row),
      verdict,
      reason: reason.kind,
      always,
      cost: moneyDocument(cost),
      value: moneyDocument(value),
    })),
  };
}

const MOST_YEARS = 10;

/** Which names to move where and when, over so many years and within a budget in minor units of the office's currency. */
export async function transferPlan(deps: Deps, query: URLSearchParams) {
  const whole = (name: string) => {
    const text = query.get(name);
    return text === null ? null : /^\d{1,12}$/.test(text) ? Number(text) : Number.NaN;
  };
  const [years, budgetMinor, accountId, targetId] = [
    whole('years') ?? 1,
    whole('budgetMinor'),
    whole('account'),
    whole('to'),
  ];
  if (!(years >= 1 && years <= MOST_YEARS)) return refuse('query-invalid', 'years is 1 to 10.', 'years');
  if ([budgetMinor, accountId, targetId].some(Number.isNaN))
    return refuse('query-invalid', 'budgetMinor, account and to are whole numbers.', 'budgetMinor');
  const ledger = await today(deps);
  if (isRefusal(ledger)) return ledger;
  const { projection } = ledger;
  const { columns } = projection.names;
  const underWay = new Set(await namesUnderWay(deps));
  const plan = planMoves(
    projection,
    ledger.rowsWhere((place) => accountId === null || columns.accountId[place] === accountId),
    { years, targetId, budgetMinor, evenIfDearer: query.get('evenIfDearer') === 'true', underWay },
  );
  const label = accountLabels(projection.index.rules);
  const home = (minor: number) => moneyDocument({ minor, currency: projection.index.rules.homeCurrency });
  return {
    cost: home(plan.costMinor),
    saved: home(plan.savedMinor),
    waves: plan.waves.map((wave) => ({
      at: formatInstant(wave.at),
      cost: home(wave.costMinor),
      saved: home(wave.savedMinor),
      moves: wave.moves.map(({ row, ...move }) => ({
        name: row.name.ascii,
        from: label(row.name.accountId),
        to: label(move.accountId),
        by: at(move.by),
        cost: home(move.costMinor),
        saved: home(move.savedMinor),
      })),
    })),
    left: plan.left.map(({ row, why }) => ({ name: row.name.ascii, why })),
  };
}
