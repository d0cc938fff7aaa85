import { emptyMarket } from '../marketplace/market';
import type { Buyers } from '../marketplace/types';
import type { Customer, Domain, Ms, Registrar, Touched, World } from './types';

const NO_BUYERS: Buyers = { acts: () => [], reply: () => ({ do: 'decline' }), pays: () => true };

export function nothingTouched(): Touched {
  return { domains: new Set(), customers: new Set(), messages: [], acknowledged: [], receipts: [] };
}

/** A world with these registrars, customers and names, at `now`. */
export function makeWorld(
  now: Ms,
  registrars: readonly Registrar[],
  customers: readonly Customer[],
  domains: readonly Domain[],
  bids: World['bids'] = () => false,
  grabs: World['grabs'] = () => false,
): World {
  return {
    now,
    registrars: new Map(registrars.map((one) => [one.id, one])),
    customers: new Map(customers.map((one) => [one.registrar, one])),
    domains: new Map(domains.map((one) => [one.name, one])),
    texts: new Map(),
    signed: new Map(),
    market: emptyMarket(),
    buyers: NO_BUYERS,
    messages: [],
    holderMails: [],
    receipts: [],
    nextId: 1,
    touched: nothingTouched(),
    bids,
    grabs,
  };
}
