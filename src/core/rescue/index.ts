export { bestUnderBudget, type Choice } from './budget';
export {
  type Judgement,
  judge,
  needsRescue,
  RESCUE_DAYS,
  type SaleOdds,
  USUAL_ODDS,
  VERDICTS,
  type Verdict,
  type VerdictReason,
} from './verdict';
