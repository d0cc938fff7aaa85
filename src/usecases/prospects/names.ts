import { todayOf } from '@/core/ledger';
import type { Amount } from '@/core/money';
import { dropPlan, rankedName, rankNames, STANDS, type Stand } from '@/core/prospects';
import { type Refusal, refuse } from '@/core/refusal';
import type { Instant } from '@/core/time';
import type { Deps } from '../deps';
import { projectedLedger } from '../names/ledger';
import { offerFacts, officeValuing } from './offerFacts';

/** What a name's next year is worth, by the office's assumptions. Amounts are of the office's currency; `null` where nobody can say. */
export interface WorthOfName {
  readonly ascii: string;
  readonly stand: Stand;
  readonly chargedAt: Instant | null;
  readonly cost: Amount | null;
  /** The chance of a sale within the year, and what a sale is expected to leave after fees. */
  readonly chance: number | null;
  readonly proceeds: Amount | null;
  /** What keeping it is worth over its cost. */
  readonly value: Amount | null;
  readonly leastAsking: Amount | null;
  readonly like: Amount | null;
  readonly factor: number;
  readonly offers: number;
}

export interface WorthOfNames {
  readonly total: number;
  readonly names: readonly WorthOfName[];
}

const LARGEST = 1000;
const USUAL = 100;

async function judged(deps: Deps) {
  const projection = await projectedLedger(deps);
  const today = todayOf(projection);
  const [facts, valuing] = await Promise.all([offerFacts(deps), officeValuing(deps, today)]);
  return {
    facts,
    valuing,
    names: projection.names,
    currency: projection.index.rules.homeCurrency,
    ranking: rankNames(valuing, facts),
  };
}

const whole = (minor: number, currency: string): Amount => ({ minor: Math.round(minor), currency });

/** Names by what their next year is worth, what wants a decision first: `stand`, `offset`, `limit`. */
export async function worthOfNames(deps: Deps, query: URLSearchParams): Promise<WorthOfNames | Refusal> {
  const [limit, offset] = [Number(query.get('limit') ?? USUAL), Number(query.get('offset') ?? 0)];
  if (!Number.isInteger(limit) || limit < 1 || limit > LARGEST)
    return refuse('query-invalid', `limit is a whole number from 1 to ${LARGEST}.`, 'limit');
  if (!Number.isInteger(offset) || offset < 0)
    return refuse('query-invalid', 'offset is a whole number from 0.', 'offset');
  const word = query.get('stand');
  const code = word === null ? -1 : STANDS.indexOf(word as Stand);
  if (word !== null && code < 0) return refuse('query-invalid', `stand is one of: ${STANDS.join(', ')}.`, 'stand');
  const { facts, valuing, names, currency, ranking } = await judged(deps);
  const places = code < 0 ? ranking.order : ranking.order.filter((place) => ranking.stand[place] === code);
  const money = (minor: number | null | undefined) =>
    minor === null || minor === undefined ? null : whole(minor, currency);
  return {
    total: places.length,
    names: Array.from(places.slice(offset, offset + limit), (place): WorthOfName => {
      const { stand, worth, next, leastAskingMinor, likeMinor, factor, offers } = rankedName(
        valuing,
        facts,
        ranking,
        place,
      );
      return {
        ascii: names.ascii(place),
        stand,
        chargedAt: next?.firstAt ?? null,
        cost: money(next?.costs[0]),
        chance: worth?.keep.chance ?? null,
        proceeds: money(worth?.proceeds),
        value: money(worth?.keep.value),
        leastAsking: money(leastAskingMinor),
        like: money(likeMinor),
        factor,
        offers,
      };
    }),
  };
}

/** A month of the drop list. */
export interface DropListMonth {
  readonly month: string;
  readonly saves: Amount;
  readonly gain: Amount;
  readonly names: readonly string[];
}

/** What is not worth its next year, by the month in which that is charged. */
export async function dropList(deps: Deps): Promise<DropListMonth[]> {
  const { valuing, names, currency, ranking } = await judged(deps);
  return dropPlan(valuing, ranking).map(({ month, savesMinor, gainMinor, places }) => ({
    month,
    saves: whole(savesMinor, currency),
    gain: whole(gainMinor, currency),
    names: places.map((place) => names.ascii(place)),
  }));
}
