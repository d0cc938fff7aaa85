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
