export { ENTRY_KINDS, type EntryKind, isReceived } from './entryKinds';
export { EVENT_KINDS } from './eventKinds';
