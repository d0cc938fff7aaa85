/** True where a record says something else than the ledger: both have to say something, and in other words. */
export function differs(said: readonly string[], place: number, what: string): boolean {
  const [ledger = '', other = ''] = [said[0], said[place]];
  // The ledger knows a phase, records know statuses: neither is the other's word.
  if (place === 0 || what === 'statuses' || other === '' || ledger === '') return false;
  const plain = (text: string) => text.toLowerCase().split(/,\s*/).sort().join(', ');
  return plain(ledger) !== plain(other);
}
