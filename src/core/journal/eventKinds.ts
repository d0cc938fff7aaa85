/** What happens in the ledger, by the words of the interface. */
export const EVENT_KINDS = [
  'history',
  'run',
  'run item',
  'transfer',
  'foreign transfer',
  'registration',
  'release order',
  'listing',
  'offer',
  'bid',
  'auction',
  'sale',
  'watch',
  'registrar message',
  'mail',
] as const;
