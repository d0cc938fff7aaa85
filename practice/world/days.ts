import { marketPasses } from '../marketplace/passing';
import { DAY, yearsLater } from './calendar';
import { blankDomain, STRANGERS } from './domain';
import { endingRules } from './endings';
import { endTransfer } from './moving';
import { asked, chargedYears, takeMoney } from './paying';
import { book, tell } from './telling';
import type { Customer, Domain, Ms, PendingTransfer, Registrar, World } from './types';

/** Something that happens to a name by itself, and when. At one instant: charge, end of term, deletion, end of redemption, release. */
interface Coming {
  readonly at: Ms;
  readonly rank: number;
  readonly domain: Domain;
  readonly happen: () => void;
}

/** When the late window of a name ends at its registrar, and the registrar deletes it. */
export function deletionOf(registrar: Registrar, domain: Domain): Ms {
  return domain.paidThrough + Math.min(registrar.lateDays, endingRules(domain.ending).lateDays) * DAY;
}

/**
 * Puts a name's automatic charge on the calendar: at its lead days, or at once when that day has passed. A stalled one is
 * tried on the registrar's retry days that are left.
 */
export function schedule(registrar: Registrar, domain: Domain, now: Ms): void {
  const due = domain.paidThrough - registrar.leadDays * DAY;
  if (domain.auto === 'stalled') domain.attemptAt = retryAfter(registrar, domain, now - 1);
  else domain.attemptAt = domain.auto === 'on' ? Math.max(due, now) : null;
}

function retryAfter(registrar: Registrar, domain: Domain, after: Ms): Ms | null {
  const retries = registrar.retryDays
    .map((days) => domain.paidThrough - days * DAY)
    .filter((time) => time > after && time < domain.paidThrough);
  return retries.length > 0 ? Math.min(...retries) : null;
}

function comingFor(world: World, domain: Domain): Coming | null {
  const registrar = world.registrars.get(domain.registrar) as Registrar;
  const rules = endingRules(domain.ending);
  const become = (state: Domain['state'], at: Ms) => {
    domain.state = state;
    domain.since = at;
    if (state === 'redemption' && domain.deletedAt === null) domain.deletedAt = at;
  };
  const coming: Coming[] = [];
  const add = (at: Ms, rank: number, happen: () => void) => coming.push({ at, rank, domain, happen });
  if (domain.state === 'registered') {
    const deletion = deletionOf(registrar, domain);
    const due = domain.paidThrough - registrar.leadDays * DAY;
    // At the instant of deletion an overdue charge comes too late; one that is due at that very instant comes before it.
    if (domain.attemptAt !== null && (domain.attemptAt < deletion || domain.attemptAt === due))
      add(domain.attemptAt, 1, () => attempt(world, registrar, domain, domain.attemptAt as Ms));
    if (domain.toldEnd !== domain.paidThrough)
      add(domain.paidThrough, 2, () => {
        domain.toldEnd = domain.paidThrough;
        tell(world, domain, 'lapsed', 'The term has ended and was not renewed.', domain.paidThrough);
      });
    // An auction comes once, on its day: nobody bids, and it is over.
    const auctionAt = domain.paidThrough + (registrar.auctionDay ?? 0) * DAY;
    if (registrar.auctionDay !== null && auctionAt < deletion && auctionAt > world.now)
      add(auctionAt, 3, () => auction(world, domain, auctionAt));
    const transfer = domain.transfer;
    if (transfer) addTransfer(world, domain, transfer, add);
    add(deletion, 4, () => {
      domain.deletedAt = deletion;
      tell(world, domain, 'deleted', 'Deleted at the registry.', deletion);
      if (rules.redemptionDays > 0) become('redemption', deletion);
      else if (rules.pendingDeleteDays > 0) become('pending delete', deletion);
      else release(world, domain, deletion);
    });
  }
  if (domain.state === 'redemption') {
    const redemptionEnd = Math.max(domain.since, (domain.deletedAt ?? domain.since) + rules.redemptionDays * DAY);
    add(redemptionEnd, 5, () => {
      tell(world, domain, 'redemption-ended', 'Redemption has ended; nothing can be done any more.', redemptionEnd);
      if (rules.pendingDeleteDays > 0) become('pending delete', redemptionEnd);
      else release(world, domain, redemptionEnd);
    });
  }
  if (domain.state === 'pending restore') {
    const due = domain.since + rules.restoreReportDays * DAY;
    add(due, 5, () => {
      tell(world, domain, 'restore-overdue', 'No restore report came in time; redemption goes on.', due);
      become('redemption', due);
    });
  }
  if (domain.state === 'pending delete')
    add(domain.since + rules.pendingDeleteDays * DAY, 6, () =>
      release(world, domain, domain.since + rules.pendingDeleteDays * DAY),
    );
  const { offAt } = domain;
  if (offAt !== null)
    add(offAt, 0, () => {
      domain.offAt = null;
      domain.auto = 'off';
      domain.autoSince = offAt;
      domain.attemptAt = null;
      tell(world, domain, 'switched-off', 'Auto-renew is off now.', offAt);
    });
  const confirmBy = domain.confirmMailBy;
  if (confirmBy !== null)
    add(confirmBy, 7, () => {
      domain.confirmMailBy = null;
      domain.hold = true;
      tell(world, domain, 'suspended', 'The mail address was not confirmed in time: the name is on hold.', confirmBy);
    });
  return earliest(coming);
}

/** A transfer is answered by its losing side, or the registry acts when nobody has. */
function addTransfer(
  world: World,
  domain: Domain,
  { answer, passesAt }: PendingTransfer,
  add: (at: Ms, rank: number, happen: () => void) => void,
): void {
  if (answer && answer.at < passesAt) add(answer.at, 0, () => endTransfer(world, domain, answer.status, answer.at));
  else {
    const status = endingRules(domain.ending).unanswered === 'approves' ? 'serverApproved' : 'serverCancelled';
    add(passesAt, 0, () => endTransfer(world, domain, status, passesAt));
  }
}

function earliest(coming: readonly Coming[]): Coming | null {
  return coming.reduce<Coming | null>((first, one) => (first === null || sooner(one, first) ? one : first), null);
}

function sooner(one: Coming, other: Coming): boolean {
  if (one.at !== other.at) return one.at < other.at;
  if (one.rank !== other.rank) return one.rank < other.rank;
  return one.domain.name < other.domain.name;
}

/** One try at an automatic charge. Failed: the name is stalled, and tried again only on the registrar's retry days. */
function attempt(world: World, registrar: Registrar, domain: Domain, at: Ms): void {
  const customer = world.customers.get(registrar.id) as Customer;
  const years = chargedYears(registrar, domain, endingRules(domain.ending));
  const amountMinor = asked(registrar, domain, 'renew', years) ?? 0;
  // Others pay for what is theirs.
  const paid = domain.owner === 'office' ? takeMoney(customer, amountMinor, at) : { paymentMethod: 'card' };
  if ('paymentMethod' in paid) {
    if (domain.owner === 'office') world.touched.customers.add(registrar.id);
    domain.stands = { from: domain.paidThrough, years: endingRules(domain.ending).leastYears };
    domain.paidThrough = yearsLater(domain.paidThrough, years);
    domain.boughtYears = years;
    domain.auto = 'on';
    domain.autoSince = at;
    domain.failure = null;
    schedule(registrar, domain, at + 1);
    book(world, domain, { action: 'renew', years, amountMinor, paymentMethod: paid.paymentMethod, at, clTRID: null });
    tell(world, domain, 'charged', `Renewed for ${years} ${years === 1 ? 'year' : 'years'}.`, at, {
      amountMinor,
      paymentMethod: paid.paymentMethod,
    });
    return;
  }
  domain.attemptAt = retryAfter(registrar, domain, at);
  domain.auto = 'stalled';
  domain.autoSince = at;
  domain.failure = paid.failure;
  tell(world, domain, 'charge-failed', `The automatic charge failed: ${paid.failure}.`, at, { amountMinor });
}

function auction(world: World, domain: Domain, at: Ms): void {
  if (!world.bids(domain)) return;
  tell(world, domain, 'auctioned', 'Sold at the registrar’s auction of late names.', at);
  world.domains.delete(domain.name);
}

/** The holder follows the link in the mail: the name works, or works again. */
export function confirmMail(world: World, name: string): void {
  const domain = world.domains.get(name);
  if (!domain || (domain.confirmMailBy === null && !domain.hold)) throw new Error('Nothing is to be confirmed for it.');
  domain.confirmMailBy = null;
  domain.hold = false;
  world.touched.domains.add(name);
  tell(world, domain, 'mail-confirmed', 'The mail address is confirmed.', world.now);
}

function release(world: World, domain: Domain, at: Ms): void {
  tell(world, domain, 'released', 'Released: anyone may register it.', at);
  world.domains.delete(domain.name);
  if (!world.grabs(domain)) return;
  const letters = [...domain.name].reduce((sum, letter) => sum + letter.charCodeAt(0), 0);
  const registrars = [...world.registrars.keys()];
  const registrar = registrars[letters % registrars.length] as string;
  world.domains.set(domain.name, {
    ...blankDomain(domain.name, registrar, at, yearsLater(at, endingRules(domain.ending).leastYears)),
    ending: domain.ending,
    owner: 'stranger',
    holder: STRANGERS[letters % STRANGERS.length] as string,
    nameServers: ['ns1.parkwick.test', 'ns2.parkwick.test'],
  });
  world.touched.domains.add(domain.name);
}

/**
 * Lets time pass up to `until`, a day at a time, with nobody acting: everything that is due happens in its order. `onDay`
 * is told each day that has passed.
 */
export async function letDaysPass(
  world: World,
  until: Ms,
  onDay: (now: Ms) => Promise<void> | void = () => undefined,
): Promise<void> {
  while (world.now < until) {
    const end = Math.min(until, (Math.floor(world.now / DAY) + 1) * DAY);
    passTo(world, end);
    await onDay(world.now);
  }
}

/** Lets everything happen that is due up to and at `end`. */
export function passTo(world: World, end: Ms): void {
  const due: Coming[] = [];
  const push = (domain: Domain | undefined) => {
    if (!domain) return;
    const coming = comingFor(world, domain);
    if (coming && coming.at <= end) due.push(coming);
  };
  for (const domain of world.domains.values()) push(domain);
  while (due.length > 0) {
    let next = 0;
    for (let i = 1; i < due.length; i += 1) if (sooner(due[i] as Coming, due[next] as Coming)) next = i;
    const [coming] = due.splice(next, 1) as [Coming];
    world.now = Math.max(world.now, coming.at);
    world.touched.domains.add(coming.domain.name);
    coming.happen();
    // A name that was released may be somebody else's already.
    push(world.domains.get(coming.domain.name));
  }
  world.now = end;
  marketPasses(world, world.buyers, end);
}
