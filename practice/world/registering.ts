import { yearsLater } from './calendar';
import { blankDomain, STRANGERS } from './domain';
import { endingRules } from './endings';
import { type Answer, no, type Orderer, pay } from './orders';
import { askToConfirmMail } from './telling';
import type { Domain, World } from './types';
import { askedToRegister, unregistered } from './unregistered';

const TEN_YEARS = 10;

/** A name as it is wanted. */
export interface CreateOrder {
  readonly name: string;
  readonly years: number;
  /** The most that may be taken; a name with a price of its own needs it. */
  readonly feeMinor: number | null;
  readonly authInfo: string;
  readonly nameServers: readonly string[];
  readonly payBy?: string | null;
  /** Taken now, finished later. */
  readonly isForLater?: boolean;
}

/** Registers a name for whoever orders it: once, at its price, where nobody has it and it is not reserved. */
export function create(order: Orderer, wish: CreateOrder): Answer {
  const { world, registrar } = order;
  if (world.domains.has(wish.name)) return no(2302, `${wish.name} is registered`);
  const ending = wish.name.slice(wish.name.indexOf('.') + 1);
  const { reserved, own } = unregistered(wish.name);
  if (reserved) return no(2306, `${wish.name} is reserved`);
  const { leastYears, stepYears } = endingRules(ending);
  const price = askedToRegister(registrar, wish.name, wish.years);
  if (price === null) return no(2306, `no names under .${ending} here`);
  if (wish.years < leastYears || wish.years > TEN_YEARS || (wish.years - leastYears) % stepYears !== 0)
    return no(2306, 'not a term that is sold');
  if (own && wish.feeMinor === null) return no(2003, 'a premium name needs its fee');
  if (wish.feeMinor !== null && wish.feeMinor < price) return no(2004, 'the fee is higher');
  const domain: Domain = {
    ...blankDomain(wish.name, registrar.id, world.now, yearsLater(world.now, wish.years)),
    boughtYears: wish.years,
    authInfo: wish.authInfo,
    nameServers: [...wish.nameServers],
    premiumMinor: own?.renewMinor ?? null,
    forLater: wish.isForLater ? { clTRID: order.clTRID, wish: null } : null,
  };
  const paid = pay(order, domain, 'register', wish.years, price, wish.payBy ?? null);
  if (paid.code !== 1000) return paid;
  world.domains.set(domain.name, domain);
  askToConfirmMail(world, domain, world.now);
  return wish.isForLater ? { ...paid, code: 1001 } : paid;
}

/** Somebody else registers a free name, at another registrar. */
export function grab(world: World, name: string, registrar: string): void {
  if (world.domains.has(name)) return;
  world.domains.set(name, {
    ...blankDomain(name, registrar, world.now, yearsLater(world.now, 1)),
    owner: 'stranger',
    holder: STRANGERS[name.length % STRANGERS.length] as string,
  });
  world.touched.domains.add(name);
}
