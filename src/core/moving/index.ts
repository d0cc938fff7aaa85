export { movingFacts, type SeenRecord } from './facts';
export {
  bestMoment,
  type Ground,
  type GroundKind,
  groundsAgainst,
  lastMoment,
  type MovingFacts,
  type MovingStretch,
  movingCalendar,
  standingAt,
} from './grounds';
