export { bestUnderBudget, type Choice } from './budget';
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
