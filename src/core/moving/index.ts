export { movingFacts, type SeenOfName, seenOf } from './facts';
export {
  bestMoment,
  endAfterTransfer,
  type Ground,
  type GroundKind,
  groundsAgainst,
  lastMoment,
  type MovingFacts,
  type MovingStretch,
  movingCalendar,
  standingAt,
} from './grounds';
export {
  type LeftAccount,
  type LeftReason,
  type MovePlan,
  type MoveWave,
  type PlanAsked,
  type PlannedMove,
  planMoves,
} from './plan';
export {
  AT_THE_NEW_ACCOUNT,
  AT_THE_OLD_ACCOUNT,
  BEFORE_REQUEST,
  endOf,
  judgeRequest,
  MAY_BE_UNDER_WAY,
  MOVE_EXITS,
  MOVE_STAGES,
  type MoveExit,
  type MoveLinks,
  type MoveStage,
  type MoveTurn,
  moveDueAt,
  OVER_MOVES,
  type RequestVerdict,
  type TransferMark,
  turnBackBy,
  turnOfMove,
} from './stages';
export { compareZones, type ZoneDifference } from './zones';
