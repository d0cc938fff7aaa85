import { formatDecimal } from '@/core/money';
import { escapeXml } from '@/formats/epp/document';
import { deletionOf } from '../world/days';
import { endAfter, loginAt, standsAt } from '../world/moving';
import type { Answer } from '../world/orders';
import type { Customer, Domain, Message, Registrar, World } from '../world/types';

/** Our own extension, for what EPP leaves to the registrar. See docs/epp-holding.md. */
export const HOLDING = 'https://name-ledger.example/epp/holding-1.0';
export const EXTENSIONS = ['urn:ietf:params:xml:ns:rgp-1.0', 'urn:ietf:params:xml:ns:epp:fee-1.0', HOLDING] as const;

/** Result codes in the words of RFC 5730 section 3. */
const WORDS: Readonly<Record<number, string>> = {
  1000: 'Command completed successfully',
  1001: 'Command completed successfully; action pending',
  1300: 'Command completed successfully; no messages',
  1301: 'Command completed successfully; ack to dequeue',
  1500: 'Command completed successfully; ending session',
  2000: 'Unknown command',
  2001: 'Command syntax error',
  2002: 'Command use error',
  2003: 'Required parameter missing',
  2004: 'Parameter value range error',
  2005: 'Parameter value syntax error',
  2101: 'Unimplemented command',
  2104: 'Billing failure',
  2105: 'Object is not eligible for renewal',
  2106: 'Object is not eligible for transfer',
  2200: 'Authentication error',
  2201: 'Authorization error',
  2202: 'Invalid authorization information',
  2300: 'Object pending transfer',
  2301: 'Object not pending transfer',
  2302: 'Object exists',
  2303: 'Object does not exist',
  2304: 'Object status prohibits operation',
  2306: 'Parameter value policy error',
  2400: 'Command failed',
  2500: 'Command failed; server closing connection',
  2501: 'Authentication error; server closing connection',
  2502: 'Session limit exceeded; server closing connection',
};

const document = (inner: string) =>
  `<?xml version="1.0" encoding="UTF-8" standalone="no"?>\n<epp xmlns="urn:ietf:params:xml:ns:epp-1.0">${inner}</epp>`;

export function greeting(registrar: Registrar, now: number): string {
  const uris = EXTENSIONS.map((uri) => `<extURI>${uri}</extURI>`).join('');
  return document(
    `<greeting><svID>${escapeXml(registrar.title)}</svID><svDate>${new Date(now).toISOString()}</svDate><svcMenu><version>1.0</version><lang>en</lang><objURI>urn:ietf:params:xml:ns:domain-1.0</objURI><objURI>${HOLDING}</objURI><svcExtension>${uris}</svcExtension></svcMenu><dcp><access><all/></access><statement><purpose><admin/><prov/></purpose><recipient><ours/></recipient><retention><stated/></retention></statement></dcp></greeting>`,
  );
}

export interface Response {
  readonly code: number;
  readonly reason?: string | null;
  readonly resData?: string;
  readonly extension?: string;
  readonly queue?: string;
}

export function response(
  { code, reason, resData, extension, queue }: Response,
  clTRID: string | null,
  svTRID: string,
): string {
  const why = reason
    ? `<extValue><value><epp:undef xmlns:epp="urn:ietf:params:xml:ns:epp-1.0"/></value><reason>${escapeXml(reason)}</reason></extValue>`
    : '';
  return document(
    `<response><result code="${code}"><msg>${WORDS[code] ?? 'Command failed'}</msg>${why}</result>${queue ?? ''}${resData ? `<resData>${resData}</resData>` : ''}${extension ? `<extension>${extension}</extension>` : ''}<trID>${clTRID ? `<clTRID>${escapeXml(clTRID)}</clTRID>` : ''}<svTRID>${escapeXml(svTRID)}</svTRID></trID></response>`,
  );
}

const instant = (at: number) => new Date(at).toISOString().replace('.000Z', '.0Z');
const money = (minor: number, { currency }: Pick<Registrar, 'currency'>) => formatDecimal({ minor, currency });
const DOMAIN = 'xmlns:domain="urn:ietf:params:xml:ns:domain-1.0"';
const FEE = 'xmlns:fee="urn:ietf:params:xml:ns:epp:fee-1.0"';
const OWN = `xmlns:holding="${HOLDING}"`;

/** The statuses of a name, in the words of RFC 5731 and RFC 3915. */
export function statusesOf(domain: Domain, registrar: Registrar, now: number): { epp: string[]; rgp: string[] } {
  const epp: string[] = [];
  const rgp: string[] = [];
  if (domain.state === 'redemption' || domain.state === 'pending restore' || domain.state === 'pending delete')
    epp.push('pendingDelete');
  if (domain.state === 'redemption') rgp.push('redemptionPeriod');
  if (domain.state === 'pending restore') rgp.push('pendingRestore');
  if (domain.state === 'pending delete') rgp.push('pendingDelete');
  const stands = standsAt(domain, now);
  const isLate = now >= domain.paidThrough && now < deletionOf(registrar, domain);
  if (domain.state === 'registered' && (isLate || (stands !== null && now >= stands.from))) rgp.push('autoRenewPeriod');
  if (domain.lock) epp.push('clientTransferProhibited');
  if (domain.hold) epp.push('clientHold');
  if (domain.transfer) epp.push('pendingTransfer');
  if (domain.forLater) epp.push(domain.forLater.wish ? 'pendingRenew' : 'pendingCreate');
  if (epp.length === 0) epp.push('ok');
  return { epp, rgp };
}

export function infoData(
  domain: Domain,
  registrar: Registrar,
  world: World,
  isOwn: boolean,
): { resData: string; extension: string } {
  const { now } = world;
  const { epp, rgp } = statusesOf(domain, registrar, now);
  return {
    resData: `<domain:infData ${DOMAIN}><domain:name>${domain.name}</domain:name><domain:roid>${roidOf(domain)}</domain:roid>${epp.map((s) => `<domain:status s="${s}"/>`).join('')}${domain.nameServers.length > 0 ? `<domain:ns>${domain.nameServers.map((host) => `<domain:hostObj>${escapeXml(host)}</domain:hostObj>`).join('')}</domain:ns>` : ''}<domain:clID>${escapeXml(loginAt(world, domain.registrar, domain.owner))}</domain:clID><domain:crDate>${instant(domain.createdAt)}</domain:crDate><domain:exDate>${instant(domain.paidThrough)}</domain:exDate>${domain.movedAt ? `<domain:trDate>${instant(domain.movedAt)}</domain:trDate>` : ''}${isOwn ? `<domain:authInfo><domain:pw>${escapeXml(domain.authInfo)}</domain:pw></domain:authInfo>` : ''}</domain:infData>`,
    extension: `${rgp.length > 0 ? `<rgp:infData xmlns:rgp="urn:ietf:params:xml:ns:rgp-1.0">${rgp.map((s) => `<rgp:rgpStatus s="${s}"/>`).join('')}</rgp:infData>` : ''}${isOwn ? `<holding:domainData ${OWN}>${heldName(domain, registrar, now)}</holding:domainData>` : ''}`,
  };
}

function roidOf(domain: Domain): string {
  return `${domain.createdAt.toString(36).toUpperCase()}-PRACTICE`;
}

function heldName(domain: Domain, registrar: Registrar, now: number): string {
  const { epp, rgp } = statusesOf(domain, registrar, now);
  const statuses = [...epp.filter((s) => s !== 'ok'), ...rgp].join(' ');
  return `<holding:name exDate="${instant(domain.paidThrough)}" crDate="${instant(domain.createdAt)}"${domain.movedAt ? ` trDate="${instant(domain.movedAt)}"` : ''} autoRenew="${domain.auto}" autoRenewSince="${instant(domain.autoSince)}" lock="${domain.lock}" privacy="${domain.privacy}" statuses="${statuses}" stateSince="${instant(domain.since)}"${domain.failure ? ` failure="${escapeXml(domain.failure)}"` : ''}${domain.premiumMinor === null ? '' : ` premium="${money(domain.premiumMinor, registrar)}"`}${receiptOf(domain, registrar)} currency="${registrar.currency}">${domain.name}</holding:name>`;
}

/** The last thing that was paid for on a name, and whose order it was. */
function receiptOf({ lastReceipt }: Domain, registrar: Registrar): string {
  if (!lastReceipt) return '';
  const whose = lastReceipt.clTRID === null ? '' : ` receiptFor="${escapeXml(lastReceipt.clTRID)}"`;
  return ` receipt="${lastReceipt.svTRID}"${whose} taken="${money(lastReceipt.amountMinor, registrar)}" takenBy="${escapeXml(lastReceipt.paymentMethod)}"`;
}

const PAGE = 500;

/** A page of everything that a customer holds: balance, means, the registrar's rules, and names after `after`. */
export function holdingData(world: World, registrar: Registrar, customer: Customer, after: string): string {
  const names = [...world.domains.values()]
    .filter((domain) => domain.owner === 'office' && domain.registrar === registrar.id && domain.name > after)
    .sort((a, b) => (a.name < b.name ? -1 : 1));
  const page = names.slice(0, PAGE);
  const years = registrar.yearsPerCharge === 'as bought' ? 'asBought' : registrar.yearsPerCharge;
  const paymentMethods = customer.paymentMethods
    .map(
      (one) =>
        `<holding:paymentMethod kind="${one.kind}"${one.endsMonth ? ` ends="${one.endsMonth}"` : ''}>${escapeXml(one.label)}</holding:paymentMethod>`,
    )
    .join('');
  return `<holding:infData ${OWN}><holding:balance currency="${registrar.currency}">${money(customer.balanceMinor, registrar)}</holding:balance>${paymentMethods}<holding:rules lead="${registrar.leadDays}" late="${registrar.lateDays}" lateFee="${money(registrar.lateFeeMinor, registrar)}" years="${years}" retry="${registrar.retryDays.join(' ')}" tax="${registrar.taxPercent}" privacy="${money(registrar.privacyMinor, registrar)}"${registrar.auctionDay === null ? '' : ` auction="${registrar.auctionDay}"`}/>${page.map((domain) => heldName(domain, registrar, world.now)).join('')}${names.length > PAGE ? '<holding:more/>' : ''}</holding:infData>`;
}

/** Whether names may be registered here, and why not (RFC 5731 section 3.1.1). */
export function checkData(names: readonly { name: string; free: boolean; reason: string }[]): string {
  return `<domain:chkData ${DOMAIN}>${names.map(({ name, free, reason }) => `<domain:cd><domain:name avail="${free ? 1 : 0}">${escapeXml(name)}</domain:name>${free ? '' : `<domain:reason>${escapeXml(reason)}</domain:reason>`}</domain:cd>`).join('')}</domain:chkData>`;
}

export interface PricedName {
  readonly name: string;
  readonly free: boolean;
  readonly premium: boolean;
  readonly prices: readonly { command: string; years: number; minor: number | null }[];
}

/** Prices of names, as RFC 8748 section 5.1.1 gives them. */
export function feeCheckData(currency: string, names: readonly PricedName[]): string {
  return `<fee:chkData ${FEE}><fee:currency>${currency}</fee:currency>${names
    .map(
      ({ name, free, premium, prices }) =>
        `<fee:cd avail="${prices.some(({ minor }) => minor !== null) ? 1 : 0}"><fee:objID>${escapeXml(name)}</fee:objID>${premium ? '<fee:class>premium</fee:class>' : '<fee:class>standard</fee:class>'}${prices
          .map(({ command, years, minor }) =>
            minor === null
              ? `<fee:command name="${command}"><fee:reason>not sold here</fee:reason></fee:command>`
              : `<fee:command name="${command}"><fee:period unit="y">${years}</fee:period><fee:fee description="${free ? 'Registration' : 'Price'}" refundable="0">${money(minor, { currency })}</fee:fee></fee:command>`,
          )
          .join('')}</fee:cd>`,
    )
    .join('')}</fee:chkData>`;
}

export function renewalData(domain: Domain): string {
  return `<domain:renData ${DOMAIN}><domain:name>${domain.name}</domain:name><domain:exDate>${instant(domain.paidThrough)}</domain:exDate></domain:renData>`;
}

export function creationData(domain: Domain): string {
  return `<domain:creData ${DOMAIN}><domain:name>${domain.name}</domain:name><domain:crDate>${instant(domain.createdAt)}</domain:crDate><domain:exDate>${instant(domain.paidThrough)}</domain:exDate></domain:creData>`;
}

/** A transfer as RFC 5731 section 3.2.4 tells it. */
export function transferData(name: string, { status, reID, reDate, acID, acDate, exDate }: ToldTransfer): string {
  const end = exDate === null ? '' : `<domain:exDate>${instant(exDate)}</domain:exDate>`;
  return `<domain:trnData ${DOMAIN}><domain:name>${name}</domain:name><domain:trStatus>${status}</domain:trStatus><domain:reID>${escapeXml(reID)}</domain:reID><domain:reDate>${instant(reDate)}</domain:reDate><domain:acID>${escapeXml(acID)}</domain:acID><domain:acDate>${instant(acDate)}</domain:acDate>${end}</domain:trnData>`;
}

type ToldTransfer = NonNullable<Message['transfer']>;

/** The last transfer of a name, as it stands. */
export function lastTransferOf(domain: Domain): ToldTransfer | null {
  const { lastTransfer, transfer } = domain;
  return lastTransfer && { ...lastTransfer, exDate: transfer ? endAfter(domain, transfer.passesAt) : null };
}

/** What was taken for an act (RFC 8748 section 5.2), and the balance after it. */
export function feeTaken(
  tag: 'renData' | 'creData' | 'updData' | 'trnData' | 'delData',
  registrar: Registrar,
  customer: Customer,
  answer: Answer,
): string {
  return `<fee:${tag} ${FEE}><fee:currency>${registrar.currency}</fee:currency>${(answer.amountMinor ?? 0) < 0 ? `<fee:credit>${money(answer.amountMinor ?? 0, registrar)}</fee:credit>` : `<fee:fee>${money(answer.amountMinor ?? 0, registrar)}</fee:fee>`}<fee:balance>${money(customer.balanceMinor, registrar)}</fee:balance></fee:${tag}>${answer.paymentMethod ? `<holding:paid ${OWN}>${escapeXml(answer.paymentMethod)}</holding:paid>` : ''}`;
}

/** The oldest message of a queue (RFC 5730 section 2.9.2.3). */
export function queued(message: Message, count: number, registrar: Registrar): { queue: string; resData: string } {
  const amount =
    message.amountMinor === null
      ? ''
      : ` amount="${money(message.amountMinor, registrar)}" currency="${registrar.currency}"`;
  const paymentMethod = message.paymentMethod ? ` paymentMethod="${escapeXml(message.paymentMethod)}"` : '';
  const until = message.until === null ? '' : ` until="${instant(message.until)}"`;
  const { pending } = message;
  return {
    queue: `<msgQ count="${count}" id="${message.id}"><qDate>${instant(message.at)}</qDate><msg>${escapeXml(message.text)}</msg></msgQ>`,
    resData: pending
      ? `<domain:panData ${DOMAIN}><domain:name paResult="${pending.isDone ? 1 : 0}">${message.name}</domain:name><domain:paTRID><clTRID>${escapeXml(pending.clTRID ?? '')}</clTRID><svTRID>${registrar.id}-${message.id}</svTRID></domain:paTRID><domain:paDate>${instant(message.at)}</domain:paDate></domain:panData>`
      : `${message.transfer ? transferData(message.name, message.transfer) : ''}<holding:event ${OWN} kind="${message.kind}" exDate="${instant(message.paidThrough)}"${amount}${paymentMethod}${until}>${message.name}</holding:event>`,
  };
}

export function emptyQueue(count: number, id: number): string {
  return `<msgQ count="${count}" id="${id}"/>`;
}
