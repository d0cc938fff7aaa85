/** What a column of a list of names can hold. */
export const PORTFOLIO_FIELDS = [
  'name',
  'account',
  'registered',
  'expires',
  'autoRenew',
  'lock',
  'privacy',
  'nameServers',
  'tags',
  'purpose',
  'neverLost',
  'pricePaid',
  'boughtOn',
  'renewalPrice',
  'currency',
  'askingPrice',
  'notes',
] as const;
export type PortfolioField = (typeof PORTFOLIO_FIELDS)[number];
