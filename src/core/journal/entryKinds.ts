/** What money on a name was for. */
export const ENTRY_KINDS = [
  'bought',
  'registration',
  'renewal',
  'late fee',
  'restore',
  'transfer',
  'privacy',
  'listing fee',
  'commission',
  'sale',
  'refund',
  'other',
] as const;
export type EntryKind = (typeof ENTRY_KINDS)[number];

/** Kinds that bring money in; every other one spends it. */
export function isReceived(kind: EntryKind): boolean {
  return kind === 'sale' || kind === 'refund';
}
