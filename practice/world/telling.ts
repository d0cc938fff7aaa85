import { DAY } from './calendar';
import type { Domain, EventKind, Message, Ms, Receipt, World } from './types';

/** What a message says beyond its text. */
interface Told {
  readonly amountMinor?: number;
  readonly paymentMethod?: string;
  readonly until?: Ms;
  readonly pending?: Message['pending'];
  readonly transfer?: Message['transfer'];
  /** The registrar whose customer the office is told as, though the name is not there. */
  readonly toOffice?: string;
}

/** A message to the office, from the registrar that has the name. */
export function tell(world: World, domain: Domain, kind: EventKind, text: string, at: Ms, more: Told = {}): void {
  // Registrars tell their own customer, not others.
  if (domain.owner !== 'office' && !more.toOffice) return;
  const message = {
    id: world.nextId++,
    registrar: more.toOffice ?? domain.registrar,
    at,
    kind,
    name: domain.name,
    text,
    paidThrough: domain.paidThrough,
    amountMinor: more.amountMinor ?? null,
    paymentMethod: more.paymentMethod ?? null,
    until: more.until ?? null,
    pending: more.pending ?? null,
    transfer: more.transfer ?? null,
  };
  world.messages.push(message);
  world.touched.messages.push(message);
}

/** Writes down what was paid for. Answers the receipt. */
export function book(
  world: World,
  domain: Domain,
  line: {
    action: Receipt['action'];
    years: number;
    amountMinor: number;
    paymentMethod: string;
    at: Ms;
    clTRID: string | null;
  },
): string {
  const id = world.nextId++;
  const svTRID = `${domain.registrar}-${id}`;
  const receipt = { id, registrar: domain.registrar, name: domain.name, svTRID, ...line };
  world.receipts.push(receipt);
  world.touched.receipts.push(receipt);
  domain.lastReceipt = {
    clTRID: line.clTRID,
    svTRID,
    amountMinor: line.amountMinor,
    paymentMethod: line.paymentMethod,
  };
  return svTRID;
}

const CONFIRM_MAIL_DAYS = 15;

/** A new holder is asked to confirm the mail address within fifteen days of `since`. */
export function askToConfirmMail(world: World, domain: Domain, since: Ms): void {
  domain.confirmMailBy = since + CONFIRM_MAIL_DAYS * DAY;
  mailHolder(
    world,
    domain,
    `Confirm your mail address for ${domain.name}`,
    `Within ${CONFIRM_MAIL_DAYS} days, else it stops working.`,
    since,
  );
  world.touched.domains.add(domain.name);
  tell(
    world,
    domain,
    'confirm-mail',
    'The holder has to confirm the mail address, else the name stops working.',
    since,
    {
      until: domain.confirmMailBy,
    },
  );
}

const MOST_HOLDER_MAILS = 50;

/** A registrar's mail to the holder of a name. */
export function mailHolder(world: World, domain: Domain, subject: string, text: string, at: Ms): void {
  const to = `${domain.holder.toLowerCase().replace(/[^a-z]+/g, '-')}@holders.test`;
  world.holderMails.unshift({ at, to, subject, text });
  world.holderMails.length = Math.min(world.holderMails.length, MOST_HOLDER_MAILS);
}
