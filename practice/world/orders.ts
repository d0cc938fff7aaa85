import { DAY, dateOf, yearsLater } from './calendar';
import { deletionOf, schedule } from './days';
import { endingRules } from './endings';
import { giveTo } from './moving';
import { asked, promotionFor, takeMoney } from './paying';
import { askToConfirmMail, book, tell } from './telling';
import type { Action, Customer, Domain, Registrar, RenewOrder, World } from './types';
import { askedToRegister } from './unregistered';

/** An answer to an order: a result code of RFC 5730 section 3, in words, with what was done. */
export interface Answer {
  readonly code: number;
  readonly reason?: string;
  readonly domain?: Domain;
  readonly amountMinor?: number;
  readonly svTRID?: string;
  /** What it was paid by. */
  readonly paymentMethod?: string;
}

/** Who orders, and under which transaction identifier of theirs. */
export interface Orderer {
  readonly world: World;
  readonly registrar: Registrar;
  readonly customer: Customer;
  readonly clTRID: string | null;
}

const TEN_YEARS = 10;
const HOUR = 3_600_000;

export const no = (code: number, reason: string): Answer => ({ code, reason });

/** A name that the orderer holds at this registrar. */
export function own({ world, registrar }: Orderer, name: string): Domain | Answer {
  const domain = world.domains.get(name);
  if (!domain) return no(2303, `${name} is not registered`);
  if (domain.registrar !== registrar.id || domain.owner !== 'office') return no(2201, `${name} is not sponsored here`);
  return domain;
}

const isAnswer = (value: Domain | Answer): value is Answer => 'code' in value;

/** Takes what an act costs, by the method that is said or in their order, and books it. */
export function pay(
  order: Orderer,
  domain: Domain,
  action: 'renew' | 'restore' | 'register' | 'transfer' | 'privacy',
  years: number,
  amountMinor: number,
  payBy: string | null = null,
): Answer {
  const { world, registrar, customer, clTRID } = order;
  const paid = takeMoney(customer, amountMinor, world.now, payBy);
  if ('failure' in paid) return no(2104, paid.failure);
  world.touched.customers.add(registrar.id);
  world.touched.domains.add(domain.name);
  const svTRID = book(world, domain, {
    action,
    years,
    amountMinor,
    paymentMethod: paid.paymentMethod,
    at: world.now,
    clTRID,
  });
  return { code: 1000, domain, amountMinor, svTRID, paymentMethod: paid.paymentMethod };
}

/** What an act costs now, the late fee included; `null` when this registrar does not sell it. */
export function priceNow(
  order: Orderer,
  domain: { ending: string; premiumMinor: number | null; paidThrough?: number },
  action: Action,
  years: number,
  code: string | null,
): number | null {
  const { registrar, world } = order;
  const promotion = code
    ? promotionFor(registrar, code, { action, ending: domain.ending, years, at: world.now })
    : null;
  const price = asked(registrar, domain, action, years, promotion);
  if (price === null) return null;
  const late = action === 'renew' && domain.paidThrough !== undefined && world.now >= domain.paidThrough;
  return price + (late ? registrar.lateFeeMinor : 0);
}

/** Renews a name. `exDate` here is paid-through: a name in its late window is renewed for the year that has begun. */
export function renew(order: Orderer, wish: RenewOrder): Answer {
  const { world, registrar } = order;
  const domain = own(order, wish.name);
  if (isAnswer(domain)) return domain;
  if (domain.state !== 'registered') return no(2304, `the name is in ${domain.state}`);
  if (world.now >= deletionOf(registrar, domain)) return no(2105, 'the late window has ended');
  if (wish.curExpDate !== dateOf(domain.paidThrough)) return no(2306, `the term ends on ${dateOf(domain.paidThrough)}`);
  const { leastYears, stepYears } = endingRules(domain.ending);
  if (wish.years < leastYears || (wish.years - leastYears) % stepYears !== 0)
    return no(2306, `terms of ${leastYears} years and more in steps of ${stepYears}`);
  const end = yearsLater(domain.paidThrough, wish.years);
  if (end > yearsLater(world.now, TEN_YEARS)) return no(2306, 'no term may run past ten years from now');
  if (
    wish.promotion &&
    !promotionFor(registrar, wish.promotion, {
      action: 'renew',
      ending: domain.ending,
      years: wish.years,
      at: world.now,
    })
  )
    return no(2306, `the promotion ${wish.promotion} does not hold for this`);
  const price = priceNow(order, domain, 'renew', wish.years, wish.promotion);
  if (price === null) return no(2306, 'not sold here');
  if (wish.feeMinor === null && domain.premiumMinor !== null) return no(2003, 'a premium name needs its fee');
  if (wish.feeMinor !== null && wish.feeMinor < price) return no(2004, 'the fee is higher');
  const paid = pay(order, domain, 'renew', wish.years, price, wish.payBy);
  if (paid.code !== 1000) return paid;
  if (world.now >= domain.paidThrough) domain.stands = { from: domain.paidThrough, years: leastYears };
  domain.paidThrough = end;
  domain.boughtYears = wish.years;
  domain.failure = null;
  if (domain.auto === 'stalled') {
    domain.auto = 'on';
    domain.autoSince = world.now;
  }
  schedule(registrar, domain, world.now);
  return paid;
}

/** Takes a renewal and finishes it later: answered with 1001, and from then on the name shows that it is being renewed. */
export function renewLater(order: Orderer, wish: RenewOrder): Answer {
  const domain = own(order, wish.name);
  if (isAnswer(domain)) return domain;
  domain.forLater = { clTRID: order.clTRID, wish };
  order.world.touched.domains.add(domain.name);
  return { code: 1001, domain };
}

/** Finishes what was taken for later at a registrar, and tells what became of each (RFC 5731 section 3.3). */
export function finishOrders(order: Orderer): void {
  const { world, registrar } = order;
  for (const domain of world.domains.values()) {
    if (domain.registrar !== registrar.id || !domain.forLater) continue;
    const { clTRID, wish } = domain.forLater;
    domain.forLater = null;
    const done = wish ? renew({ ...order, clTRID }, wish) : { code: 1000, reason: undefined };
    const isDone = done.code === 1000;
    const what = wish ? 'renewal' : 'registration';
    const text = isDone ? `The ${what} is finished.` : (done.reason ?? 'It could not be done.');
    tell(world, domain, 'order-finished', text, world.now, { pending: { clTRID, isDone } });
    world.touched.domains.add(domain.name);
  }
}

/** Restores a name in redemption: pays for it and for a year, and waits for the report (RFC 3915). */
export function requestRestore(order: Orderer, name: string, feeMinor: number | null, payBy: string | null): Answer {
  const { world } = order;
  const domain = own(order, name);
  if (isAnswer(domain)) return domain;
  if (domain.state !== 'redemption') return no(2304, `the name is in ${domain.state}`);
  const price = priceNow(order, domain, 'restore', 1, null);
  if (price === null) return no(2306, 'not sold here');
  if (feeMinor === null) return no(2003, 'a restore needs its fee');
  if (feeMinor < price) return no(2004, 'the fee is higher');
  const paid = pay(order, domain, 'restore', 1, price, payBy);
  if (paid.code !== 1000) return paid;
  domain.state = 'pending restore';
  domain.since = world.now;
  return paid;
}

/** Takes the restore report: the name is back, with a year more if its term had ended. */
export function reportRestore(order: Orderer, name: string): Answer {
  const { world, registrar } = order;
  const domain = own(order, name);
  if (isAnswer(domain)) return domain;
  if (domain.state !== 'pending restore') return no(2304, `the name is in ${domain.state}`);
  domain.state = 'registered';
  domain.since = world.now;
  if (domain.paidThrough <= (domain.deletedAt ?? 0)) domain.paidThrough = yearsLater(domain.paidThrough, 1);
  domain.deletedAt = null;
  schedule(registrar, domain, world.now);
  world.touched.domains.add(name);
  return { code: 1000, domain };
}

export interface Settings {
  readonly auto?: 'on' | 'off';
  readonly lock?: boolean;
  readonly privacy?: boolean;
  readonly nameServers?: { readonly added: readonly string[]; readonly removed: readonly string[] };
  readonly text?: string;
  readonly pushTo?: string;
  /** `null` unsets it. */
  readonly authInfo?: string | null;
}

/** Sets what is said. Switching auto-renew on near a term's end may cost a year at once; privacy may cost its price. */
export function change(order: Orderer, name: string, to: Settings): Answer {
  const { world, registrar } = order;
  const domain = own(order, name);
  if (isAnswer(domain)) return domain;
  if (domain.state !== 'registered') return no(2304, `the name is in ${domain.state}`);
  world.touched.domains.add(name);
  if (to.auto === 'on' && domain.auto !== 'on') {
    const days = registrar.onNeedsPaymentDays;
    const near = days !== null && domain.paidThrough - world.now <= days * DAY && world.now < domain.paidThrough;
    if (near) {
      const years = endingRules(domain.ending).leastYears;
      const price = priceNow(order, domain, 'renew', years, null);
      const paid = price === null ? no(2306, 'not sold here') : pay(order, domain, 'renew', years, price);
      if (paid.code !== 1000) return paid;
      domain.paidThrough = yearsLater(domain.paidThrough, years);
    }
  }
  if (to.privacy === true && !domain.privacy && registrar.privacyMinor > 0) {
    const paid = pay(order, domain, 'privacy', 1, registrar.privacyMinor);
    if (paid.code !== 1000) return paid;
  }
  if (to.auto === 'off' && domain.auto !== 'off' && registrar.offTakesHours > 0) {
    domain.offAt ??= world.now + registrar.offTakesHours * HOUR;
    return { code: 1001, domain };
  }
  if (to.auto === 'on') domain.offAt = null;
  if (to.auto !== undefined && to.auto !== domain.auto) {
    domain.auto = to.auto;
    domain.autoSince = world.now;
    domain.failure = null;
    schedule(registrar, domain, world.now);
  }
  if (to.lock !== undefined) domain.lock = to.lock;
  if (to.privacy !== undefined) domain.privacy = to.privacy;
  if (to.nameServers !== undefined) {
    const { added, removed } = to.nameServers;
    const kept = domain.nameServers.filter((host) => !removed.includes(host) && !added.includes(host));
    domain.nameServers = [...kept, ...added];
  }
  if (to.authInfo !== undefined) {
    domain.authInfo = to.authInfo ?? '';
    domain.codeSetAt = to.authInfo === null ? null : world.now;
  }
  if (to.text !== undefined) {
    const texts = world.texts.get(name) ?? [];
    if (!texts.includes(to.text)) world.texts.set(name, [...texts, to.text]);
  }
  if (to.pushTo !== undefined) push(world, domain, to.pushTo);
  return { code: 1000, domain };
}

/** Hands a name to another customer of the same registrar: at once, and whether it is locked or not. */
function push(world: World, domain: Domain, account: string): void {
  const sale = Object.values(world.market.sales).find((one) => one.name === domain.name && one.account === account);
  giveTo(domain, sale?.buyer ?? account);
  domain.movedAt = world.now;
}

/** Somebody else's name is handed to the office's account at its registrar. Throws where there is none such. */
export function pushToOffice(world: World, name: string): void {
  const domain = world.domains.get(name);
  if (domain?.owner !== 'stranger') throw new Error('Nobody else has such a name here.');
  Object.assign(domain, { owner: 'office', movedAt: world.now, auto: 'off', attemptAt: null });
  world.touched.domains.add(name);
  askToConfirmMail(world, domain, world.now);
}

/** Registers a free name. */
/** Deletes a name: it goes into redemption, where its ending has one. */
export function remove(order: Orderer, name: string): Answer {
  const { world, registrar } = order;
  const domain = own(order, name);
  if (isAnswer(domain)) return domain;
  if (domain.state !== 'registered') return no(2304, `the name is in ${domain.state}`);
  world.touched.domains.add(name);
  if (world.now < domain.createdAt + registrar.refundDays * DAY) return refundName(order, domain);
  if (endingRules(domain.ending).redemptionDays === 0) {
    world.domains.delete(name);
    return { code: 1000 };
  }
  domain.state = 'redemption';
  domain.since = world.now;
  domain.deletedAt = world.now;
  return { code: 1000, domain };
}

/** A registration of the last days is deleted for good, and what it cost comes back to the balance. */
function refundName({ world, registrar, customer, clTRID }: Orderer, domain: Domain): Answer {
  const price = askedToRegister(registrar, domain.name, domain.boughtYears) ?? 0;
  customer.balanceMinor += price;
  world.touched.customers.add(registrar.id);
  const svTRID = book(world, domain, {
    action: 'refund',
    years: domain.boughtYears,
    amountMinor: -price,
    paymentMethod: 'balance',
    at: world.now,
    clTRID,
  });
  world.domains.delete(domain.name);
  return { code: 1000, domain, amountMinor: -price, svTRID };
}

/** Adds money to the balance; the same id is taken once. */
export function topUp({ world, registrar, customer }: Orderer, id: string, amountMinor: number): Answer {
  if (amountMinor <= 0) return no(2004, 'a top-up is more than nothing');
  if (!customer.topUps.includes(id)) {
    customer.topUps.push(id);
    customer.balanceMinor += amountMinor;
    world.touched.customers.add(registrar.id);
  }
  return { code: 1000 };
}

/** Puts a new card in the place of the one with the same label. */
export function replaceCard({ world, registrar, customer }: Orderer, label: string, endsMonth: string): Answer {
  const card = customer.paymentMethods.find((method) => method.kind === 'card' && method.label === label);
  if (!card) return no(2303, `there is no card ${label}`);
  card.endsMonth = endsMonth;
  world.touched.customers.add(registrar.id);
  return { code: 1000 };
}
