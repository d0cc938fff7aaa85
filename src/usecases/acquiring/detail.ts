import { type OutcomeKind, perhapsMeant, type Spelling, spellingOf } from '@/core/acquiring';
import { nearSpellings, parseDomainName } from '@/core/names';
import { holderOf } from '@/core/records';
import { isRefusal, type Refusal } from '@/core/refusal';
import { type Comparison, compareSales } from '@/core/selling';
import type { Instant, TermEnd } from '@/core/time';
import { type AvailabilityRow, selectAvailability, selectKnownUnder } from '@/database/availability';
import { type ComingFreeRow, selectListedFree } from '@/database/comingFree';
import { selectNewestRecords } from '@/database/records';
import { selectPastSales } from '@/database/sales';
import { selectSettings } from '@/database/settings';
import { selectUse, type UseSeen } from '@/database/usesSeen';
import { selectWatches } from '@/database/watches';
import type { Deps } from '../deps';
import { labelOf, ownNames } from './ownNames';

/** A name beside the one that is looked at, with what is known of it. */
export interface Neighbour {
  readonly ascii: string;
  readonly kind: OutcomeKind | 'ours';
  readonly holder: string | null;
}

/** Who holds a taken name, and how to reach them, as far as the record shows it. */
export interface TakenBy {
  readonly holder: string | null;
  readonly mail: string | null;
  readonly form: string | null;
  readonly registrar: string | null;
  readonly registered: Instant | null;
  readonly expires: TermEnd | null;
  readonly seenAt: Instant;
}

/** Everything that is known of one name that one would like to have. */
export interface CandidateDetail {
  readonly ascii: string;
  readonly unicode: string;
  readonly ending: string;
  readonly spelling: Spelling;
  /** What a piece was perhaps meant to be, by the names one has. */
  readonly meant: readonly { readonly piece: string; readonly meant: string }[];
  readonly like: Comparison | null;
  readonly answer: AvailabilityRow | null;
  readonly takenBy: TakenBy | null;
  readonly use: UseSeen | null;
  readonly isWatched: boolean;
  /** What a list of names about to come free says of it. */
  readonly listed: ComingFreeRow | null;
  /** Names that are easily typed or read for it and are taken, and how many of them nobody has asked for. */
  readonly near: readonly Neighbour[];
  readonly nearNotAsked: number;
  /** The same word under other endings. */
  readonly others: readonly Neighbour[];
}

/** What is known of a name, and of those beside it. `pieces` is what its label was put together from. */
export async function candidateDetail(
  deps: Deps,
  written: string,
  pieces: readonly string[],
): Promise<CandidateDetail | Refusal> {
  const name = parseDomainName(written);
  if (isRefusal(name)) return name;
  const { ascii, unicode, ending } = name;
  const label = ascii.slice(0, ascii.indexOf('.'));
  const near = nearSpellings(ascii);
  const db = deps.database;
  const [answers, under, own, records, sales, settings, use, watches, listed] = await Promise.all([
    selectAvailability(db, [ascii, ...near]),
    selectKnownUnder(db, label),
    ownNames(deps),
    selectNewestRecords(db, [ascii, ...near]),
    selectPastSales(db),
    selectSettings(db),
    selectUse(db, ascii),
    selectWatches(db, [ascii]),
    selectListedFree(db, ascii),
  ]);
  const record =
    records.find((one) => one.ascii === ascii && one.source === 'registrar' && one.record.found) ??
    records.find((one) => one.ascii === ascii && one.record.found) ??
    null;
  const known = new Map(answers.map((row) => [row.ascii, row]));
  // The registry's record hides what the registrar's may show.
  const holders = new Map(
    records.flatMap((one) => {
      const holder = holderOf(one.record);
      return holder === null ? [] : [[one.ascii, holder] as const];
    }),
  );
  const neighbour = (other: string): Neighbour[] => {
    if (own.ascii.has(other)) return [{ ascii: other, kind: 'ours', holder: null }];
    const kind =
      known.get(other)?.kind ?? (records.some((one) => one.ascii === other && one.record.found) ? 'taken' : null);
    return kind === null ? [] : [{ ascii: other, kind, holder: holders.get(other) ?? null }];
  };
  const neighbours = near.map(neighbour);
  return {
    ascii,
    unicode,
    ending,
    spelling: spellingOf(labelOf(unicode), pieces, own.skeletons),
    meant: [...new Set(pieces)].flatMap((piece) => {
      const meant = perhapsMeant(piece, own.labels);
      return meant === null ? [] : [{ piece, meant }];
    }),
    like: compareSales(ascii, sales, settings.homeCurrency),
    answer: known.get(ascii) ?? null,
    takenBy: record && takenBy(record),
    use,
    isWatched: watches.length > 0,
    listed,
    near: neighbours.flat().filter(({ kind }) => kind === 'taken' || kind === 'ours'),
    nearNotAsked: neighbours.filter((one) => one.length === 0).length,
    others: under
      .filter((other) => other.ascii !== ascii)
      .map((other) => ({
        ascii: other.ascii,
        kind: own.ascii.has(other.ascii) ? 'ours' : other.kind,
        holder: holders.get(other.ascii) ?? null,
      })),
  };
}

function takenBy({ record, lastAt }: Awaited<ReturnType<typeof selectNewestRecords>>[number]): TakenBy {
  return {
    holder: holderOf(record),
    mail: record.holder?.mail ?? null,
    form: record.holder?.form ?? null,
    registrar: record.registrar,
    registered: record.registered,
    expires: record.expires,
    seenAt: lastAt,
  };
}
