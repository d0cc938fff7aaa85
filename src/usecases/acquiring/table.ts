import {
  type CandidateCells,
  CELL_LETTERS,
  holdingOf,
  type OutcomeKind,
  type OwnPriceCell,
  ownHolding,
  type TakenCell,
} from '@/core/acquiring';
import { indexRules } from '@/core/ledger';
import { amount } from '@/core/money';
import { isRefusal, type Refusal, refuse } from '@/core/refusal';
import { dayOf, type Instant } from '@/core/time';
import {
  type AskingProgress,
  type AvailabilityRow,
  selectAskingProgress,
  selectAvailability,
} from '@/database/availability';
import { type IdeaSetRow, selectIdeaSet } from '@/database/ideaSets';
import { selectLedgerRules } from '@/database/ledger';
import { selectHeld } from '@/database/names';
import type { Deps } from '../deps';
import { readIdeas, takenLetters } from './ideas';

/** Candidates down, endings across, as they go to the browser. */
export interface CandidateTable extends CandidateCells {
  readonly set: IdeaSetRow;
  readonly pieces: readonly (readonly string[])[];
  readonly refused: readonly { readonly label: string; readonly why: string }[];
  readonly progress: AskingProgress;
  /** The oldest and the newest answer, and how many came from whom. */
  readonly askedFrom: Instant | null;
  readonly askedTo: Instant | null;
  readonly askedBy: Readonly<Record<string, number>>;
}

/** What a set of ideas comes to, with what is known of each name and what each ending costs to hold. */
export async function candidateTable(deps: Deps, setId: number, privacy = false): Promise<CandidateTable | Refusal> {
  const set = await selectIdeaSet(deps.database, setId);
  const read = set && readIdeas(set);
  if (!read) return refuse('ideas-gone', 'These ideas are no longer there. Load the page again.');
  if (isRefusal(read)) return read;
  const endings = read.allEndings;
  const names = read.candidates.flatMap(({ label }) => endings.map((ending) => `${label}.${ending}`));
  const [rows, own, rules, takes, progress] = await Promise.all([
    selectAvailability(deps.database, names),
    selectHeld(deps.database, names),
    selectLedgerRules(deps.database),
    takenLetters(deps, endings),
    selectAskingProgress(deps.database, setId),
  ]);
  const index = indexRules(rules);
  const day = dayOf(deps.clock());
  const known = new Map(rows.map((row) => [row.ascii, row]));
  const ourPrices: OwnPriceCell[] = [];
  const taken: TakenCell[] = [];
  const changed: { cell: number; before: OutcomeKind }[] = [];
  const letters = read.candidates.flatMap((candidate, row) =>
    endings.map((ending, column) => {
      const ascii = `${candidate.label}.${ending}`;
      const cell = row * endings.length + column;
      if (own.has(ascii)) return CELL_LETTERS.ours;
      if (takes(candidate, ending) !== null) return CELL_LETTERS['not possible'];
      const found = known.get(ascii);
      if (!found) return CELL_LETTERS['not asked'];
      if (found.kind === 'premium')
        ourPrices.push({ cell, accountId: found.accountId, holding: ownHolding(index, told(found), day) });
      if (found.kind === 'taken')
        taken.push({ cell, termEnd: found.termEnd, earliest: found.earliest, latest: found.latest });
      if (hasChanged(found, set.comparedAt)) changed.push({ cell, before: found.before as OutcomeKind });
      return CELL_LETTERS[found.kind];
    }),
  );
  const asked = { day, newAt: new Set<number>(), codes: [], privacy };
  return {
    set,
    endings: endings.map((ending) => holdingOf(index, ending, asked)),
    labels: read.candidates.map(({ label }) => label),
    unicodes: read.candidates.map(({ unicode }) => unicode),
    pieces: read.candidates.map(({ pieces }) => pieces),
    refused: read.refused,
    cells: letters.join(''),
    own: ourPrices,
    taken,
    changed,
    progress,
    ...spanOf(rows),
  };
}

/** What a link told of a name's own price. */
function told({ registerMinor, renewMinor, currency, years }: AvailabilityRow) {
  const money = (minor: number | null) => (minor === null || currency === null ? null : amount(minor, currency));
  return { register: money(registerMinor), renew: money(renewMinor), years: years ?? 1 };
}

const hasChanged = ({ before, changedAt }: AvailabilityRow, since: Instant | null): boolean =>
  before !== null && changedAt !== null && since !== null && changedAt >= since;

function spanOf(rows: readonly AvailabilityRow[]): Pick<CandidateTable, 'askedFrom' | 'askedTo' | 'askedBy'> {
  let askedFrom: Instant | null = null;
  let askedTo: Instant | null = null;
  const askedBy: Record<string, number> = {};
  for (const { askedAt, askedBy: by } of rows) {
    if (askedFrom === null || askedAt < askedFrom) askedFrom = askedAt;
    if (askedTo === null || askedAt > askedTo) askedTo = askedAt;
    const who = by ?? 'nobody';
    askedBy[who] = (askedBy[who] ?? 0) + 1;
  }
  return { askedFrom, askedTo, askedBy };
}
