import { DAY, yearsLater } from './calendar';
import { endingRules } from './endings';
import { askToConfirmMail, book, mailHolder, tell } from './telling';
import type { Domain, Message, Ms, PendingTransfer, TransferRecord, World } from './types';

/** Days after which the registry acts on a transfer that nobody has answered (RFC 5731 section 3.2.4). */
const TRANSFER_DAYS = 5;

/** The login by which a registrar's customer is known elsewhere: the office's own, or that of somebody else there. */
export function loginAt(world: World, registrar: string, owner: Domain['owner']): string {
  return owner === 'office' ? (world.customers.get(registrar)?.login ?? registrar) : `${registrar}-customer`;
}

/** A transfer is asked for: it waits for its answer, and both sides are told. */
export function beginTransfer(
  world: World,
  domain: Domain,
  { to, holder, paid }: Pick<PendingTransfer, 'to' | 'holder' | 'paid'>,
): void {
  const passesAt = world.now + TRANSFER_DAYS * DAY;
  domain.transfer = { to, requestedAt: world.now, passesAt, ...(holder && { holder }), ...(paid && { paid }) };
  domain.lastTransfer = {
    status: 'pending',
    reID: loginAt(world, to, holder ? 'stranger' : 'office'),
    reDate: world.now,
    acID: loginAt(world, domain.registrar, domain.owner),
    acDate: passesAt,
  };
  world.touched.domains.add(domain.name);
  const transfer = { ...domain.lastTransfer, exDate: endAfter(domain, passesAt) };
  tell(world, domain, 'transfer-requested', `A transfer to ${to} was asked for.`, world.now, {
    until: passesAt,
    transfer,
  });
  mailHolder(
    world,
    domain,
    `${domain.name} is to be transferred`,
    `A transfer of ${domain.name} to ${to} was asked for. Unanswered, it is acted on by itself in ${TRANSFER_DAYS} days.`,
    world.now,
  );
  if (!holder)
    tell(world, domain, 'transfer-pending', 'The transfer waits for its answer.', world.now, {
      transfer,
      toOffice: to,
    });
}

/** A transfer that was asked for is over, one way or the other. What was taken for one that comes to nothing is given back. */
export function endTransfer(world: World, domain: Domain, status: TransferRecord['status'], at: Ms): void {
  const { transfer: pending, lastTransfer } = domain;
  if (!pending || !lastTransfer) return;
  world.touched.domains.add(domain.name);
  const isThrough = status === 'clientApproved' || status === 'serverApproved';
  domain.lastTransfer = { ...lastTransfer, status, acDate: at };
  const transfer = { ...domain.lastTransfer, exDate: isThrough ? endAfter(domain, at) : null };
  const from = domain.registrar;
  domain.transfer = null;
  if (isThrough) {
    moveTo(world, domain, pending.to, at, transfer);
    domain.lastReceipt = pending.paid?.receipt ?? null;
    if (pending.losesZone) domain.nameServers = [];
    if (pending.holder) giveTo(domain, pending.holder);
    else {
      domain.owner = 'office';
      if (world.registrars.get(pending.to)?.asksHolderAfterTransfer) askToConfirmMail(world, domain, at);
    }
  } else {
    tell(world, domain, 'transfer-ended', `The transfer to ${pending.to} came to nothing.`, at, { transfer });
    giveBack(world, domain, pending, at);
  }
  const gainedBy = pending.holder ? null : pending.to;
  if (gainedBy !== null)
    tell(world, domain, 'transfer-ended', `The transfer from ${from} is over: ${status}.`, at, {
      transfer,
      toOffice: gainedBy,
      ...(!isThrough && pending.paid && { amountMinor: -pending.paid.minor }),
    });
}

function giveBack(world: World, domain: Domain, { to, paid }: PendingTransfer, at: Ms): void {
  const customer = world.customers.get(to);
  if (!paid || !customer) return;
  customer.balanceMinor += paid.minor;
  world.touched.customers.add(to);
  book(
    world,
    { ...domain, registrar: to },
    { action: 'refund', years: 0, amountMinor: -paid.minor, paymentMethod: 'balance', at, clTRID: paid.clTRID },
  );
}

/** When the term ends after a transfer that goes through then: without a year that the registry only let stand. */
export function endAfter(domain: Domain, at: Ms): Ms {
  const { transferYears } = endingRules(domain.ending);
  return yearsLater(domain.paidThrough, transferYears - (standsAt(domain, at)?.years ?? 0));
}

/** The year of a name that its registry lets stand and may still take back; `null` once its grace is over. */
export function standsAt({ stands, ending }: Domain, now: Ms): Domain['stands'] {
  return stands && now < stands.from + endingRules(ending).lateDays * DAY ? stands : null;
}

/** A name goes to another registrar, and its old one tells of it. Its code is used up. */
export function moveTo(world: World, domain: Domain, to: string, at: Ms, transfer?: Message['transfer']): void {
  tell(world, domain, 'transferred', `Transferred to ${to}.`, at, transfer ? { transfer } : {});
  domain.paidThrough = endAfter(domain, at);
  domain.registrar = to;
  domain.stands = null;
  domain.transfer = null;
  domain.movedAt = at;
  domain.authInfo = '';
  domain.codeSetAt = null;
  domain.auto = 'off';
  domain.autoSince = at;
  domain.attemptAt = null;
}

/** A name belongs to somebody else from now on. */
export function giveTo(domain: Domain, holder: string): void {
  domain.owner = 'stranger';
  domain.holder = holder;
  domain.auto = 'off';
  domain.attemptAt = null;
  domain.privacy = false;
}
