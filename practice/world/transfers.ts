import { DAY, yearsLater } from './calendar';
import { STRANGERS } from './domain';
import { endingRules } from './endings';
import { beginTransfer, endTransfer } from './moving';
import { type Answer, no, type Orderer } from './orders';
import { asked, takeMoney } from './paying';
import { book } from './telling';
import type { Domain, World } from './types';

/** A command about a transfer (RFC 5731 sections 3.1.3 and 3.2.4). */
export interface TransferWish {
  readonly name: string;
  readonly op: string;
  readonly authInfo: string | null;
  /** The most the orderer agrees to pay; `null` when none was said. */
  readonly feeMinor?: number | null;
}

/** Days for which a code is good; RFC 9154 leaves them to the server. */
const CODE_DAYS = 14;

/** Whether a code lets its holder ask for the name now: set, not lapsed, and the same. */
export function isRightCode({ now }: World, { authInfo, codeSetAt }: Domain, code: string | null): boolean {
  const hasLapsed = codeSetAt !== null && now >= codeSetAt + CODE_DAYS * DAY;
  return authInfo !== '' && code === authInfo && !hasLapsed;
}

/** Asks for a transfer to this registrar, asks after one, or answers one. */
export function transfer(order: Orderer, wish: TransferWish): Answer {
  const { world, registrar } = order;
  const domain = world.domains.get(wish.name);
  if (!domain) return no(2303, `${wish.name} is not registered`);
  const isHere = domain.registrar === registrar.id && domain.owner === 'office';
  const isWanted = domain.transfer?.to === registrar.id && !domain.transfer.holder;
  switch (wish.op) {
    case 'query':
      if (!domain.lastTransfer) return no(2301, 'no transfer was asked for');
      return isHere || isWanted || wasAskedHere(order, domain) || isRightCode(world, domain, wish.authInfo)
        ? { code: 1000, domain }
        : no(2201, 'not yours');
    case 'request':
      return request(order, domain, wish);
    case 'cancel':
    case 'approve':
    case 'reject': {
      if (!domain.transfer) return no(2301, 'no transfer is pending');
      if (wish.op === 'cancel' ? !isWanted : !isHere) return no(2201, 'not yours to answer');
      const status =
        wish.op === 'approve' ? 'clientApproved' : wish.op === 'reject' ? 'clientRejected' : 'clientCancelled';
      endTransfer(world, domain, status, world.now);
      return { code: 1000, domain };
    }
    default:
      return no(2000, wish.op);
  }
}

function wasAskedHere({ customer }: Orderer, { lastTransfer }: Domain): boolean {
  return lastTransfer?.reID === customer.login;
}

/** Somebody else asks for a name of the office's, with a code that got out. Throws where its lock is on. */
export function askedBySomebody(world: World, name: string): void {
  const domain = world.domains.get(name);
  if (domain?.owner !== 'office') throw new Error('The office has no such name here.');
  if (domain.lock || domain.state !== 'registered') throw new Error('It is locked: nobody can ask for it.');
  if (domain.transfer) throw new Error('A transfer of it is pending already.');
  const to = [...world.registrars.keys()].find((id) => id !== domain.registrar) ?? domain.registrar;
  beginTransfer(world, domain, { to, holder: STRANGERS[4] });
}

function request(order: Orderer, domain: Domain, { authInfo, feeMinor = null }: TransferWish): Answer {
  const { world, registrar, customer, clTRID } = order;
  if (domain.transfer) return no(2300, 'a transfer is pending');
  if (domain.registrar === registrar.id) return no(2002, 'the name is here already');
  if (domain.lock || domain.state !== 'registered') return no(2304, 'the name is locked or deleted');
  if (world.now >= domain.paidThrough) return no(2106, 'past its term');
  const newest = Math.max(domain.createdAt, domain.movedAt ?? 0);
  const { fixedDays, mostYears, transferYears } = endingRules(domain.ending);
  if (world.now - newest < fixedDays * DAY) return no(2106, `registered or moved within ${fixedDays} days`);
  if (transferYears > 0 && yearsLater(domain.paidThrough, transferYears) > yearsLater(world.now, mostYears))
    return no(2306, `its term would end more than ${mostYears} years from now`);
  if (!isRightCode(world, domain, authInfo)) return no(2202, 'the code is wrong, or has lapsed');
  const price = asked(registrar, domain, 'transfer', 1);
  if (price === null) return no(2306, 'not sold here');
  if (feeMinor !== null && feeMinor < price) return no(2004, 'the fee is higher');
  const paid = takeMoney(customer, price, world.now);
  if ('failure' in paid) return no(2104, paid.failure);
  world.touched.customers.add(registrar.id);
  const line = { action: 'transfer' as const, years: 1, amountMinor: price, at: world.now, clTRID };
  const svTRID = book(world, { ...domain, registrar: registrar.id }, { ...line, paymentMethod: paid.paymentMethod });
  const receipt = { clTRID, svTRID, amountMinor: price, paymentMethod: paid.paymentMethod };
  beginTransfer(world, domain, { to: registrar.id, paid: { minor: price, clTRID, receipt } });
  return { code: 1001, domain, amountMinor: price, svTRID, paymentMethod: paid.paymentMethod };
}
