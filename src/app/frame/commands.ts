/** Something the command box can do, with the words it is found by. */
export interface Command {
  readonly id: string;
  readonly text: string;
  /** Other words of the trade for the same. */
  readonly words: string;
  readonly does: CommandDoes;
}

/** What a command does: it goes to a page, fetches a file, or acts where one is. */
export type CommandDoes =
  | { readonly kind: 'go'; readonly href: string }
  | { readonly kind: 'fetch'; readonly href: string }
  | { readonly kind: 'undo' }
  | { readonly kind: 'chart'; readonly chart: 'day' | 'night' }
  | { readonly kind: 'keys' }
  | { readonly kind: 'today' };

const go = (href: string) => ({ kind: 'go', href }) as const;

/** Every command goes to a place or a view of the ledger; trade words find them too. */
export const COMMANDS: readonly Command[] = [
  { id: 'today', text: 'Today: what needs a decision', words: 'start home urgent alerts tasks', does: go('/today') },
  {
    id: 'funding',
    text: 'Renewals: what will be charged',
    words: 'funding balance top up card charges money',
    does: go('/renewals'),
  },
  {
    id: 'rescue',
    text: 'Rescue: names in danger',
    words: 'restore redemption expired late lapse save budget let go drop cancel abandon delete',
    does: go('/rescue'),
  },
  {
    id: 'prices',
    text: 'Prices: what a name costs over years',
    words: 'compare registrars cheapest first year renewal total cost price list coupon promotion tld pricing',
    does: go('/prices'),
  },
  {
    id: 'acquire',
    text: 'Acquire: find names, and what they cost to hold',
    words: 'register buy new search available free ideas brainstorm availability check premium',
    does: go('/acquire'),
  },
  {
    id: 'shortlist',
    text: 'Acquire: the shortlist, reviewed and registered',
    words: 'register buy spelling review wanted new',
    does: go('/acquire/shortlist'),
  },
  {
    id: 'waited-for',
    text: 'Acquire: ask a holder, order a name at its release',
    words: 'backorder coming free dropping pending delete list taken buy offer owner enquiry broker lost',
    does: go('/acquire/waiting'),
  },
  {
    id: 'transfers',
    text: 'Transfers: names on their way',
    words: 'move registrar change transfer in out auth code epp unlock gaining losing',
    does: go('/transfers'),
  },
  {
    id: 'plan-transfers',
    text: 'Transfers: plan which names to move',
    words: 'move cheaper registrar save consolidate leave budget waves',
    does: go('/transfers/plan'),
  },
  {
    id: 'record',
    text: 'Registration record: look up, compare, watch',
    words: 'whois rdap registry check lookup compare watch backorder available free dns holder registrant',
    does: go('/record'),
  },
  {
    id: 'selling',
    text: 'Selling: what is to do',
    words: 'offers negotiate auction bids listings marketplace escrow handover push',
    does: go('/selling'),
  },
  {
    id: 'offer',
    text: 'Selling: every listing',
    words: 'listings listed for sale price parked on offer',
    does: go('/selling/listings'),
  },
  {
    id: 'sold',
    text: 'Selling: what was sold',
    words: 'profit return income sales history',
    does: go('/selling/sold'),
  },
  {
    id: 'comparables',
    text: 'Selling: past sales',
    words: 'comparables comps appraisal value estimate',
    does: go('/selling/comparables'),
  },
  {
    id: 'prospects',
    text: 'Prospects: will sales carry the renewals?',
    words: 'forecast outlook cash flow simulation budget scenario strategy profit runway chance',
    does: go('/prospects'),
  },
  {
    id: 'worth-a-year',
    text: 'Prospects: which names are worth another year',
    words: 'drop prune keep value underpriced asking price renew worth',
    does: go('/prospects/names'),
  },
  {
    id: 'drop-list',
    text: 'Prospects: the drop list',
    words: 'prune let go save plan renewal date',
    does: go('/prospects/drop-list'),
  },
  {
    id: 'looking-back',
    text: 'Prospects: kept forecasts, held against what came',
    words: 'hit rate calibration accuracy forecast past',
    does: go('/prospects/kept'),
  },
  {
    id: 'review',
    text: 'Prospects: the year’s review',
    words: 'tax adviser accounts report income expenses profit return year roi accountant',
    does: go('/prospects/review'),
  },
  {
    id: 'add',
    text: 'Add names',
    words: 'import paste csv bring in upload list domains',
    does: go('/ledger/add'),
  },
  { id: 'ledger', text: 'Ledger: every name', words: 'portfolio domains all list', does: go('/ledger') },
  {
    id: 'soon',
    text: 'Deadlines within 30 days',
    words: 'expires expiring expiry expiration due renewal extension extend deadline soon',
    does: go('/ledger?within=30'),
  },
  {
    id: 'late',
    text: 'Names in the late window (grace period)',
    words: 'grace period expired auto-renew grace overdue',
    does: go('/ledger?phase=late'),
  },
  {
    id: 'redemption',
    text: 'Names in redemption',
    words: 'rgp restore deleted pending delete expired',
    does: go('/ledger?phase=redemption,pending restore'),
  },
  { id: 'off', text: 'Auto-renew off', words: 'autorenew manual will lapse', does: go('/ledger?auto=off') },
  {
    id: 'stalled',
    text: 'Auto-renew stalled',
    words: 'charge failed card balance',
    does: go('/ledger?auto=stalled'),
  },
  { id: 'sale', text: 'Names for sale', words: 'listed listing asking selling', does: go('/ledger?forSale=yes') },
  {
    id: 'lost',
    text: 'Names never to be lost',
    words: 'critical important protected',
    does: go('/ledger?neverLost=yes'),
  },
  {
    id: 'renewals',
    text: 'Renewals to confirm',
    words: 'renew renewal extend extension planned requested receipt auto-renew pending coupon promotion discount',
    does: go('/renewals'),
  },
  {
    id: 'accounts',
    text: 'Setup: accounts',
    words: 'registrar card balance payment prices link coupon',
    does: go('/setup/accounts'),
  },
  {
    id: 'policies',
    text: 'Setup: policies',
    words: 'ending tld grace redemption period lifecycle',
    does: go('/setup/policies'),
  },
  {
    id: 'money',
    text: 'Setup: money and days',
    words: 'office currency time zone figures',
    does: go('/setup/money'),
  },
  {
    id: 'mail',
    text: 'Setup: mail and calendar',
    words: 'office smtp reminder ical feed alarm',
    does: go('/setup/mail'),
  },
  {
    id: 'records-asked',
    text: 'Setup: registration records',
    words: 'office rdap whois dns bootstrap server',
    does: go('/setup/records'),
  },
  {
    id: 'mails',
    text: 'Mails of registrars',
    words: 'email evidence letter eml mbox inbox told',
    does: go('/record/mails'),
  },
  {
    id: 'people',
    text: 'Setup: people',
    words: 'users roles sign in login invite access owner trader bookkeeper permissions token limit',
    does: go('/setup/people'),
  },
  {
    id: 'audit',
    text: 'Who did what',
    words: 'audit trail log of changes accountability hash',
    does: go('/setup/people/audit'),
  },
  {
    id: 'programs',
    text: 'Setup: other programs',
    words: 'api interface webhook events openapi integration',
    does: go('/setup/programs'),
  },
  {
    id: 'which-to-drop',
    text: 'Which of mine should I drop?',
    words: 'worth keeping let go prune judge all names verdict',
    does: go('/rescue/all'),
  },
  {
    id: 'unknown',
    text: 'What is not known yet',
    words: 'missing unknown dates prices incomplete',
    does: go('/unknown'),
  },
  {
    id: 'marketplaces',
    text: 'Setup: marketplaces',
    words: 'marketplace commission fees payout rates currency exchange',
    does: go('/setup/marketplaces'),
  },
  {
    id: 'transfers',
    text: 'Names with a transfer pending',
    words: 'transfer moving authorization auth code epp code',
    does: go('/ledger?phase=pending transfer'),
  },
  {
    id: 'dropped',
    text: 'Names that are dropped on purpose',
    words: 'let go drop cancel cancelled abandon',
    does: go('/ledger?purpose=drop'),
  },
  { id: 'undo', text: 'Undo what was done last', words: 'take back revert', does: { kind: 'undo' } },
  { id: 'night', text: 'Night chart', words: 'dark theme mode', does: { kind: 'chart', chart: 'night' } },
  { id: 'day', text: 'Day chart', words: 'light theme mode', does: { kind: 'chart', chart: 'day' } },
  {
    id: 'back up now',
    text: 'Back up now',
    words: 'backup save download copy',
    does: { kind: 'fetch', href: '/api/v1/backup' },
  },
  {
    id: 'export',
    text: 'Export every name as CSV',
    words: 'download spreadsheet excel',
    does: { kind: 'fetch', href: '/api/v1/names/export?format=csv' },
  },
  { id: 'back to today', text: 'Back to today’s date', words: 'date ahead time reset', does: { kind: 'today' } },
  { id: 'keys', text: 'Show all keys', words: 'keyboard shortcuts help ?', does: { kind: 'keys' } },
  { id: 'log', text: 'Setup: log', words: 'errors problems trouble', does: go('/setup/log') },
  {
    id: 'practice',
    text: 'Setup: practice',
    words: 'demo let a day pass simulate faults',
    does: go('/setup/practice'),
  },
  {
    id: 'backup',
    text: 'Setup: back up and restore',
    words: 'backup export json save restore',
    does: go('/setup/backup'),
  },
];

/** What the command box does with each account of the office. */
export function accountCommands(accounts: readonly { readonly id: number; readonly label: string }[]): Command[] {
  return accounts.flatMap(({ id, label }) => [
    {
      id: `account ${id}`,
      text: `${label}: names in this account`,
      words: 'account registrar portfolio',
      does: go(`/ledger?account=${id}`),
    },
    {
      id: `rules ${id}`,
      text: `${label}: rules, prices and link`,
      words: 'account registrar setup balance card coupon',
      does: go(`/setup/accounts/${id}`),
    },
  ]);
}

/** The commands whose text or words hold every piece of `text`. */
export function findCommands(text: string, commands: readonly Command[] = COMMANDS): Command[] {
  const pieces = text
    .toLowerCase()
    .split(/\s+/)
    .filter((piece) => piece !== '');
  return commands.filter((command) => {
    const all = `${command.text} ${command.words}`.toLowerCase();
    return pieces.every((piece) => all.includes(piece));
  });
}
