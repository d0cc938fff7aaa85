import { DAY, yearsLater } from './calendar';
import { book, moveTo, tell } from './days';
import { endingRules } from './endings';
import { type Answer, no, type Orderer } from './orders';
import { asked, takeMoney } from './paying';

const TRANSFER_DAYS = 5;

/** Asks for a transfer to this registrar, asks after one, or answers one. Unanswered, it passes after five days. */
export function transfer(order: Orderer, wish: { name: string; op: string; authInfo: string | null }): Answer {
  const { world, registrar, customer } = order;
  const domain = world.domains.get(wish.name);
  if (!domain) return no(2303, `${wish.name} is not registered`);
  const pending = domain.transfer;
  world.touched.domains.add(wish.name);
  if (wish.op === 'query') {
    if (!pending) return no(2301, 'no transfer is pending');
    return domain.registrar === registrar.id || pending.to === registrar.id
      ? { code: 1000, domain }
      : no(2201, 'not yours');
  }
  if (wish.op === 'request') {
    if (pending) return no(2300, 'a transfer is pending');
    if (domain.registrar === registrar.id) return no(2002, 'the name is here already');
    if (domain.lock || domain.state !== 'registered') return no(2304, 'the name is locked or deleted');
    if (world.now >= domain.paidThrough) return no(2106, 'past its term');
    const newest = Math.max(domain.createdAt, domain.movedAt ?? 0);
    const { fixedDays, mostYears, transferYears } = endingRules(domain.ending);
    if (world.now - newest < fixedDays * DAY) return no(2106, `registered or moved within ${fixedDays} days`);
    if (transferYears > 0 && yearsLater(domain.paidThrough, transferYears) > yearsLater(world.now, mostYears))
      return no(2306, `its term would end more than ${mostYears} years from now`);
    if (wish.authInfo !== domain.authInfo) return no(2202, 'the code is wrong');
    const price = asked(registrar, domain, 'transfer', 1);
    if (price === null) return no(2306, 'not sold here');
    const paid = takeMoney(customer, price, world.now);
    if ('failure' in paid) return no(2104, paid.failure);
    world.touched.customers.add(registrar.id);
    book(
      world,
      { ...domain, registrar: registrar.id },
      {
        action: 'transfer',
        years: 1,
        amountMinor: price,
        paymentMethod: paid.paymentMethod,
        at: world.now,
        clTRID: order.clTRID,
      },
    );
    domain.transfer = { to: registrar.id, requestedAt: world.now, passesAt: world.now + TRANSFER_DAYS * DAY };
    tell(world, domain, 'transfer-requested', `A transfer to ${registrar.id} was asked for.`, world.now);
    return { code: 1001, domain };
  }
  if (!pending) return no(2301, 'no transfer is pending');
  if (wish.op === 'cancel' ? pending.to !== registrar.id : domain.registrar !== registrar.id)
    return no(2201, 'not yours to answer');
  if (wish.op === 'approve') moveTo(world, domain, pending.to, world.now);
  domain.transfer = null;
  return { code: 1000, domain };
}
