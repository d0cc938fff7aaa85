export { ENTRY_KINDS, type EntryKind, isReceived } from './entryKinds';
export { EVENT_KINDS } from './eventKinds';
export {
  type DaySum,
  REVIEW_BY,
  REVIEW_PARTS,
  type ReviewBy,
  type ReviewGroup,
  type ReviewLine,
  type ReviewMoney,
  type ReviewPart,
  reviewLines,
} from './yearReview';
