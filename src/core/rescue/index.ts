export { bestUnderBudget } from './budget';
export { type AllJudged, bestSet, type InDanger, judgeAll, namesInDanger } from './danger';
export { type CostStretch, costsByDay, type LapseEvent, timelineOf } from './lapse';
export {
  type Judgement,
  judge,
  needsRescue,
  RESCUE_DAYS,
  VERDICTS,
  type Verdict,
  type VerdictReason,
} from './verdict';
