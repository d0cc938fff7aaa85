export {
  arrangeCandidates,
  type CandidateCells,
  type CandidateQuery,
  type CandidateTotals,
  type CandidateView,
  CELL_LETTERS,
  type CellKind,
  candidateTotals,
  kindAt,
  type OwnPriceCell,
  ROW_FILTERS,
  type RowFilter,
  type TakenCell,
  viewCandidates,
} from './arrange';
export { type Candidate, type Candidates, candidatesFrom, MOST_CANDIDATES } from './candidates';
export { type EndingHolding, type HoldingAsked, holdingOf, type OwnHolding, ownHolding } from './holding';
export { wordsOfIdeas } from './ideas';
export {
  ANSWER_HOLDS_HOURS,
  type Answers,
  ASKED_BY,
  type AskedBy,
  isOpen,
  judgeAnswers,
  type LinkAnswer,
  OUTCOMES,
  type OutcomeKind,
  type Verdict,
} from './outcome';
export { readPattern, readPatterns, USUAL_PATTERNS } from './patterns';
export { balanceAfter, CONFIRM_MAIL_DAYS, refundableUntil, type StarvedCharge, starvedBy } from './registering';
export {
  accountsToTry,
  LOOK_EVERY_MS,
  OPEN_RELEASES,
  overCaps,
  type ReleaseState,
} from './releaseOrder';
export { releaseStrip } from './releaseStrip';
export {
  besideTyped,
  bySkeleton,
  perhapsMeant,
  type Spelling,
  type SpellingNote,
  slipIn,
  spellingOf,
  type TypedPiece,
  typedInFull,
} from './spelling';
