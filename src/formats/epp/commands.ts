import { type Amount, formatDecimal } from '@/core/money';
import { escapeXml } from './document';

/** Our own extension, for what EPP leaves to the registrar. See docs/epp-holding.md. */
export const HOLDING = 'https://name-ledger.example/epp/holding-1.0';
const EPP = 'urn:ietf:params:xml:ns:epp-1.0';
const DOMAIN = 'xmlns:domain="urn:ietf:params:xml:ns:domain-1.0"';
const RGP = 'xmlns:rgp="urn:ietf:params:xml:ns:rgp-1.0"';
const FEE = 'xmlns:fee="urn:ietf:params:xml:ns:epp:fee-1.0"';
const OWN = `xmlns:holding="${HOLDING}"`;

function document(inner: string): string {
  return `<?xml version="1.0" encoding="UTF-8" standalone="no"?>\n<epp xmlns="${EPP}">${inner}</epp>`;
}

function command(body: string, clTRID: string, extension = ''): string {
  return document(
    `<command>${body}${extension ? `<extension>${extension}</extension>` : ''}<clTRID>${escapeXml(clTRID)}</clTRID></command>`,
  );
}

const nameTag = (name: string) => `<domain:name>${escapeXml(name)}</domain:name>`;

/** RFC 5730 section 2.3. */
export function hello(): string {
  return document('<hello/>');
}

/** RFC 5730 section 2.9.1.1. */
export function login(
  who: { readonly login: string; readonly password: string },
  services: { readonly objects: readonly string[]; readonly extensions: readonly string[] },
  clTRID: string,
): string {
  const objects = services.objects.map((uri) => `<objURI>${escapeXml(uri)}</objURI>`).join('');
  const extensions = services.extensions.map((uri) => `<extURI>${escapeXml(uri)}</extURI>`).join('');
  return command(
    `<login><clID>${escapeXml(who.login)}</clID><pw>${escapeXml(who.password)}</pw><options><version>1.0</version><lang>en</lang></options><svcs>${objects}${extensions ? `<svcExtension>${extensions}</svcExtension>` : ''}</svcs></login>`,
    clTRID,
  );
}

/** RFC 5730 section 2.9.1.2. */
export function logout(clTRID: string): string {
  return command('<logout/>', clTRID);
}

/** RFC 5730 section 2.9.2.3: asks for the oldest message of the queue. */
export function pollRequest(clTRID: string): string {
  return command('<poll op="req"/>', clTRID);
}

/** RFC 5730 section 2.9.2.3: takes a message off the queue. Only after it has been stored. */
export function pollAcknowledge(messageId: string, clTRID: string): string {
  return command(`<poll op="ack" msgID="${escapeXml(messageId)}"/>`, clTRID);
}

/** RFC 5731 section 3.1.2. With its code, a name of another sponsor is told of too: so a code is tried before it is paid for. */
export function infoDomain(name: string, clTRID: string, authInfo: string | null = null): string {
  return command(
    `<info><domain:info ${DOMAIN}><domain:name hosts="all">${escapeXml(name)}</domain:name>${codeTag(authInfo)}</domain:info></info>`,
    clTRID,
  );
}

function codeTag(authInfo: string | null): string {
  return authInfo === null ? '' : `<domain:authInfo><domain:pw>${escapeXml(authInfo)}</domain:pw></domain:authInfo>`;
}

export type TransferOp = 'query' | 'request' | 'cancel' | 'approve' | 'reject';

/**
 * RFC 5731 sections 3.1.3 and 3.2.4. A request carries the code, and the most that may be taken (RFC 8748 section 5.2.4); years are left to
 * the ending where none are said.
 */
export function transferDomain(
  op: TransferOp,
  order: {
    readonly name: string;
    readonly authInfo?: string | null;
    readonly years?: number | null;
    readonly fee?: Amount | null;
    readonly payBy?: string | null;
  },
  clTRID: string,
): string {
  const { name, authInfo = null, years = null, fee = null, payBy = null } = order;
  const period = years === null ? '' : `<domain:period unit="y">${years}</domain:period>`;
  return command(
    `<transfer op="${op}"><domain:transfer ${DOMAIN}>${nameTag(name)}${period}${codeTag(authInfo)}</domain:transfer></transfer>`,
    clTRID,
    `${fee ? feeTag('transfer', fee) : ''}${payTag(payBy)}`,
  );
}

/** Our extension: a page of everything the login holds, names after `after`. */
export function infoHolding(after: string, clTRID: string): string {
  return command(
    `<info><holding:info ${OWN}>${after ? `<holding:after>${escapeXml(after)}</holding:after>` : ''}</holding:info></info>`,
    clTRID,
  );
}

/** RFC 8748 section 5.1.1: what one act for some years would cost, for several names. */
export function checkFees(
  names: readonly string[],
  acts: readonly { readonly command: 'create' | 'renew' | 'transfer' | 'restore'; readonly years: number }[],
  currency: string,
  promotion: string | null,
  clTRID: string,
): string {
  const wanted = acts
    .map(
      ({ command: act, years }) =>
        `<fee:command name="${act}"><fee:period unit="y">${years}</fee:period></fee:command>`,
    )
    .join('');
  return command(
    `<check><domain:check ${DOMAIN}>${names.map(nameTag).join('')}</domain:check></check>`,
    clTRID,
    `<fee:check ${FEE}><fee:currency>${currency}</fee:currency>${wanted}</fee:check>${promotionTag(promotion)}`,
  );
}

function promotionTag(code: string | null): string {
  return code ? `<holding:promotion ${OWN}><holding:code>${escapeXml(code)}</holding:code></holding:promotion>` : '';
}

function feeTag(tag: string, fee: Amount): string {
  return `<fee:${tag} ${FEE}><fee:currency>${fee.currency}</fee:currency><fee:fee>${formatDecimal(fee)}</fee:fee></fee:${tag}>`;
}

/** RFC 5731 section 3.2.3. `curExpDate` makes sending it again harmless; `fee` is the most that may be taken (RFC 8748 section 5.2.3). */
export function renewDomain(
  order: {
    readonly name: string;
    readonly curExpDate: string;
    readonly years: number;
    readonly fee: Amount | null;
    readonly promotion?: string | null;
    readonly payBy?: string | null;
  },
  clTRID: string,
): string {
  return command(
    `<renew><domain:renew ${DOMAIN}>${nameTag(order.name)}<domain:curExpDate>${order.curExpDate}</domain:curExpDate><domain:period unit="y">${order.years}</domain:period></domain:renew></renew>`,
    clTRID,
    `${order.fee ? feeTag('renew', order.fee) : ''}${promotionTag(order.promotion ?? null)}${payTag(order.payBy ?? null)}`,
  );
}

/** Our extension: the payment method that is to pay, in place of the account's usual order. */
function payTag(paymentMethod: string | null): string {
  return paymentMethod ? `<holding:pay ${OWN}>${escapeXml(paymentMethod)}</holding:pay>` : '';
}

/** RFC 5731 section 3.2.5, with our extension for what it leaves to the registrar. Only what is said is changed. */
export function updateDomain(
  change: {
    readonly name: string;
    readonly lock?: boolean;
    readonly nameServers?: { readonly add: readonly string[]; readonly remove: readonly string[] };
    readonly auto?: 'on' | 'off';
    readonly privacy?: boolean;
    /** A text to put into its zone. */
    readonly text?: string;
    /** The customer of the same registrar that it is to go to. */
    readonly pushTo?: string;
    /** `null` unsets it: no code lets anyone ask for the name (RFC 9154 section 4.3). */
    readonly authInfo?: string | null;
  },
  clTRID: string,
): string {
  const { lock, nameServers } = change;
  const status = '<domain:status s="clientTransferProhibited"/>';
  const hosts = (list: readonly string[] = []) =>
    list.length === 0
      ? ''
      : `<domain:ns>${list.map((host) => `<domain:hostObj>${escapeXml(host)}</domain:hostObj>`).join('')}</domain:ns>`;
  const add = hosts(nameServers?.add) + (lock === true ? status : '');
  const remove = hosts(nameServers?.remove) + (lock === false ? status : '');
  const changed = (add && `<domain:add>${add}</domain:add>`) + (remove && `<domain:rem>${remove}</domain:rem>`);
  const code =
    change.authInfo === undefined
      ? ''
      : `<domain:chg>${change.authInfo === null ? '<domain:authInfo><domain:null/></domain:authInfo>' : codeTag(change.authInfo)}</domain:chg>`;
  const own = [
    change.auto === undefined ? '' : `<holding:autoRenew>${change.auto}</holding:autoRenew>`,
    change.privacy === undefined ? '' : `<holding:privacy>${change.privacy ? 'on' : 'off'}</holding:privacy>`,
    change.text === undefined ? '' : `<holding:text>${escapeXml(change.text)}</holding:text>`,
    change.pushTo === undefined ? '' : `<holding:push>${escapeXml(change.pushTo)}</holding:push>`,
  ].join('');
  return command(
    `<update><domain:update ${DOMAIN}>${nameTag(change.name)}${changed}${code}</domain:update></update>`,
    clTRID,
    own ? `<holding:update ${OWN}>${own}</holding:update>` : '',
  );
}

/** RFC 3915 section 4.2.5: asks for a name in redemption to be restored, for at most `fee`. */
export function requestRestore(name: string, fee: Amount | null, payBy: string | null, clTRID: string): string {
  return command(
    `<update><domain:update ${DOMAIN}>${nameTag(name)}<domain:chg/></domain:update></update>`,
    clTRID,
    `<rgp:update ${RGP}><rgp:restore op="request"/></rgp:update>${fee ? feeTag('update', fee) : ''}${payTag(payBy)}`,
  );
}

/** What the registrar of a restored name certifies (RFC 3915 section 4.2.5). Dates are RFC 3339. */
export interface RestoreReport {
  /** What the registration looked like before it was deleted, and what it looks like now. */
  readonly preData: string;
  readonly postData: string;
  readonly delTime: string;
  readonly resTime: string;
  readonly resReason: string;
  /** The two certifications of RFC 3915 section 3.4: not for oneself, and true to the best of one's knowledge. */
  readonly statements: readonly [string, string];
  readonly other: string | null;
}

/** RFC 3915 section 4.2.5: reports on a restore, so that the name comes back for good. */
export function reportRestore(name: string, report: RestoreReport, clTRID: string): string {
  const line = (tag: string, text: string) => `<rgp:${tag}>${escapeXml(text)}</rgp:${tag}>`;
  const { preData, postData, delTime, resTime, resReason, statements, other } = report;
  const lines = [
    line('preData', preData),
    line('postData', postData),
    line('delTime', delTime),
    line('resTime', resTime),
    line('resReason', resReason),
    ...statements.map((text) => line('statement', text)),
    other === null ? '' : line('other', other),
  ];
  return command(
    `<update><domain:update ${DOMAIN}>${nameTag(name)}<domain:chg/></domain:update></update>`,
    clTRID,
    `<rgp:update ${RGP}><rgp:restore op="report"><rgp:report>${lines.join('')}</rgp:report></rgp:restore></rgp:update>`,
  );
}

/** RFC 5731 section 3.2.1: registers a name for some years, for at most `fee` (RFC 8748 section 5.2.1). */
export function createDomain(
  order: {
    readonly name: string;
    readonly years: number;
    readonly fee: Amount | null;
    /** A code that nobody else knows (RFC 9154 section 4.1). */
    readonly authInfo: string;
    readonly nameServers?: readonly string[];
    readonly promotion?: string | null;
    readonly payBy?: string | null;
  },
  clTRID: string,
): string {
  const hosts = order.nameServers ?? [];
  const ns =
    hosts.length === 0
      ? ''
      : `<domain:ns>${hosts.map((host) => `<domain:hostObj>${escapeXml(host)}</domain:hostObj>`).join('')}</domain:ns>`;
  return command(
    `<create><domain:create ${DOMAIN}>${nameTag(order.name)}<domain:period unit="y">${order.years}</domain:period>${ns}${codeTag(order.authInfo)}</domain:create></create>`,
    clTRID,
    `${order.fee ? feeTag('create', order.fee) : ''}${promotionTag(order.promotion ?? null)}${payTag(order.payBy ?? null)}`,
  );
}

/** RFC 5731 section 3.2.2: deletes a name. In its first days that refunds it. */
export function deleteDomain(name: string, clTRID: string): string {
  return command(`<delete><domain:delete ${DOMAIN}>${nameTag(name)}</domain:delete></delete>`, clTRID);
}

/** Our extension: adds money to the balance. `key` is taken once. */
export function topUp(money: Amount, key: string, clTRID: string): string {
  return command(
    `<update><holding:update ${OWN}><holding:topUp key="${escapeXml(key)}" currency="${money.currency}">${formatDecimal(money)}</holding:topUp></holding:update></update>`,
    clTRID,
  );
}

/** Our extension: puts a new card, good through `endsMonth`, in the place of the one with that label. */
export function replaceCard(label: string, endsMonth: string, clTRID: string): string {
  return command(
    `<update><holding:update ${OWN}><holding:card ends="${endsMonth}">${escapeXml(label)}</holding:card></holding:update></update>`,
    clTRID,
  );
}
