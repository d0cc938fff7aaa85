/** Something the command box can do, with the words it is found by. */
export interface Command {
  readonly id: string;
  readonly text: string;
  /** Other words of the trade for the same. */
  readonly words: string;
  readonly href: string;
}

/** Every command goes to a place or a view of the ledger; trade words find them too. */
export const COMMANDS: readonly Command[] = [
  { id: 'today', text: 'Today: what needs a decision', words: 'start home urgent alerts tasks', href: '/today' },
  {
    id: 'funding',
    text: 'Renewals: what will be charged',
    words: 'funding balance top up card charges money',
    href: '/renewals',
  },
  {
    id: 'rescue',
    text: 'Rescue: names in danger',
    words: 'restore redemption expired late lapse save budget let go drop',
    href: '/rescue',
  },
  {
    id: 'record',
    text: 'Public record: is it still true?',
    words: 'whois rdap registry check lookup compare watch drop dns holder registrant',
    href: '/record',
  },
  {
    id: 'selling',
    text: 'Selling: what awaits you',
    words: 'offers negotiate auction bids listings marketplace escrow handover push',
    href: '/selling',
  },
  {
    id: 'offer',
    text: 'Selling: every listing on offer',
    words: 'listed for sale price parked',
    href: '/selling/listings',
  },
  { id: 'sold', text: 'Selling: what was sold', words: 'profit return income sales history', href: '/selling/sold' },
  {
    id: 'comparables',
    text: 'Selling: past sales',
    words: 'comparables comps appraisal value estimate',
    href: '/selling/comparables',
  },
  {
    id: 'add',
    text: 'Add names',
    words: 'import paste csv bring in upload list domains',
    href: '/ledger/add',
  },
  { id: 'ledger', text: 'Ledger: every name', words: 'portfolio domains all list', href: '/ledger' },
  {
    id: 'soon',
    text: 'Deadlines within 30 days',
    words: 'expires expiring due renewal deadline soon',
    href: '/ledger?within=30',
  },
  {
    id: 'late',
    text: 'Names in the late window',
    words: 'grace period expired auto-renew grace overdue',
    href: '/ledger?phase=late',
  },
  {
    id: 'redemption',
    text: 'Names in redemption',
    words: 'rgp restore deleted pending delete',
    href: '/ledger?phase=redemption,restoring',
  },
  { id: 'off', text: 'Auto-renew off', words: 'autorenew manual will lapse', href: '/ledger?auto=off' },
  {
    id: 'stalled',
    text: 'Auto-renew stalled',
    words: 'charge failed card balance',
    href: '/ledger?auto=stalled',
  },
  { id: 'sale', text: 'Names for sale', words: 'listed listing asking selling', href: '/ledger?forSale=yes' },
  {
    id: 'lost',
    text: 'Names never to be lost',
    words: 'critical important protected',
    href: '/ledger?neverLost=yes',
  },
  {
    id: 'renewals',
    text: 'Renewals to confirm',
    words: 'renew planned asked receipt auto-renew pending',
    href: '/renewals',
  },
  {
    id: 'accounts',
    text: 'Setup: accounts',
    words: 'registrar card balance payment',
    href: '/setup/accounts',
  },
  {
    id: 'policies',
    text: 'Setup: policies',
    words: 'ending tld grace redemption period lifecycle',
    href: '/setup/policies',
  },
  {
    id: 'office',
    text: 'Setup: office and calendar',
    words: 'currency time zone ical feed alarm',
    href: '/setup/office',
  },
  {
    id: 'marketplaces',
    text: 'Setup: marketplaces',
    words: 'marketplace commission fees payout rates currency exchange',
    href: '/setup/marketplaces',
  },
  { id: 'backup', text: 'Setup: back up and restore', words: 'export json save', href: '/setup/backup' },
];

/** The commands whose text or words hold every piece of `text`. */
export function findCommands(text: string): Command[] {
  const pieces = text
    .toLowerCase()
    .split(/\s+/)
    .filter((piece) => piece !== '');
  return COMMANDS.filter((command) => {
    const all = `${command.text} ${command.words}`.toLowerCase();
    return pieces.every((piece) => all.includes(piece));
  });
}
