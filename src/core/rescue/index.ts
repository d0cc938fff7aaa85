export { bestUnderBudget } from './budget';
export { bestSet, type InDanger, namesInDanger } from './danger';
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
