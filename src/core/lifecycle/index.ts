export { type ActionFacts, NAME_ACTIONS, type NameAction, refuseAction } from './actions';
export { letterNotTaken, lettersTaken } from './letters';
export {
  type AccountWindow,
  lifecycleMarks,
  type Marks,
  type ObservedPhase,
  type Registration,
  renewableUntil,
} from './marks';
export { GONE_PHASES, isGone, movedBy, PHASES, type Phase, phaseAt, TRANSFER_DAYS } from './phase';
export {
  type Policy,
  policyFor,
  type RegistryFee,
  type RuleSource,
  registryFeeOn,
  TERM_ACTIONS,
  type TermAction,
  type TermRule,
  transferLockEnds,
} from './policy';
export { greatestTerm, renewedEnd, restoredEnd } from './terms';
