export { ENTRY_KINDS, type EntryKind, isReceived } from './entryKinds';
