export {
  compareRecords,
  DANGER_BANDS,
  type DangerBand,
  DIFFERENCE_KINDS,
  type Difference,
  type DifferenceKind,
  dangerBandOf,
  holderOf,
  type LedgerSide,
  sameRegistrar,
} from './compare';
export { judgeTerm, type TermEvidence, type TermVerdict } from './provisional';
export {
  blankRecord,
  isRedaction,
  RECORD_SOURCES,
  type RecordContact,
  type RecordEvent,
  type RecordProtocol,
  type RecordSource,
  type RegistrationRecord,
} from './record';
export { type Release, releaseOf } from './release';
export { type EppStatus, phaseOfStatuses, RDAP_STATUS, readStatus, type StatusPhase } from './statuses';
