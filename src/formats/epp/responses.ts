import { type Amount, isCurrency, parseDecimal } from '@/core/money';
import { type Instant, parseInstant } from '@/core/time';
import { at, type Node, readDocument, textAt } from './document';

/** What a server says first (RFC 5730 section 2.4). */
export interface Greeting {
  readonly title: string;
  readonly objects: readonly string[];
  readonly extensions: readonly string[];
}

/** An answer to a command (RFC 5730 section 2.6). */
export interface EppResponse {
  readonly code: number;
  readonly message: string;
  /** The server's own words for why, where it gives them. */
  readonly reason: string | null;
  readonly clTRID: string | null;
  readonly svTRID: string | null;
  readonly queue: QueuedMessage | null;
  readonly data: Node | null;
  readonly extension: Node | null;
}

export interface QueuedMessage {
  readonly id: string;
  readonly count: number;
  readonly at: Instant | null;
  readonly text: string;
}

/** Reads a greeting. Throws on anything else. */
export function readGreeting(xml: string): Greeting {
  const greeting = at(readDocument(xml), 'greeting');
  if (!greeting) throw new Error('not a greeting');
  const menu = at(greeting, 'svcMenu');
  return {
    title: textAt(greeting, 'svID') ?? '',
    objects: (menu?.children.objURI ?? []).map((node) => node.text),
    extensions: (at(menu, 'svcExtension')?.children.extURI ?? []).map((node) => node.text),
  };
}

/** Reads an answer. Throws on anything else. */
export function readResponse(xml: string): EppResponse {
  const response = at(readDocument(xml), 'response');
  const result = at(response, 'result');
  const code = Number(result?.attributes.code);
  if (!response || !Number.isInteger(code)) throw new Error('not a response');
  const queue = at(response, 'msgQ');
  return {
    code,
    message: textAt(result, 'msg') ?? '',
    reason: textAt(result, 'extValue', 'reason'),
    clTRID: textAt(response, 'trID', 'clTRID'),
    svTRID: textAt(response, 'trID', 'svTRID'),
    queue: queue && {
      id: queue.attributes.id ?? '',
      count: Number(queue.attributes.count ?? 0),
      at: parseInstant(textAt(queue, 'qDate') ?? ''),
      text: textAt(queue, 'msg') ?? '',
    },
    data: at(response, 'resData'),
    extension: at(response, 'extension'),
  };
}

/** A name as its registrar has it. */
export interface HeldName {
  readonly name: string;
  /** The login that sponsors it; `null` where that was not said. */
  readonly sponsor: string | null;
  readonly registeredAt: Instant | null;
  /** The last transfer that went through. */
  readonly transferredAt: Instant | null;
  readonly paidThrough: Instant;
  readonly setting: 'on' | 'off' | 'stalled' | 'unknown';
  readonly settingSince: Instant | null;
  readonly failure: string | null;
  readonly lock: boolean;
  readonly privacy: boolean | null;
  /** Statuses in the words of RFC 5731 and RFC 3915. */
  readonly statuses: readonly string[];
  readonly stateSince: Instant | null;
  readonly nameServers: readonly string[];
  /** Renewal price of its own, where it is a premium name. */
  readonly premium: Amount | null;
  /** The last thing that was paid for on it. */
  readonly receipt: {
    readonly clTRID: string | null;
    readonly svTRID: string;
    readonly amount: Amount | null;
    readonly paymentMethod: string | null;
  } | null;
}

/** The name that an info command answered (RFC 5731 section 3.1.2), with our extension where it is there. */
export function readDomainInfo(response: EppResponse): HeldName | null {
  const info = at(response.data, 'infData');
  const name = textAt(info, 'name');
  const paidThrough = parseInstant(textAt(info, 'exDate') ?? '');
  if (!info || name === null || paidThrough === null) return null;
  const own = at(response.extension, 'domainData', 'name');
  const statuses = [
    ...(info.children.status ?? []).map((node) => node.attributes.s ?? ''),
    ...(response.extension?.children.infData ?? []).flatMap((node) =>
      (node.children.rgpStatus ?? []).map((status) => status.attributes.s ?? ''),
    ),
  ].filter((status) => status !== 'ok' && status !== '');
  const nameServers = (at(info, 'ns')?.children.hostObj ?? []).map((node) => node.text);
  const held = own ? heldName(own) : null;
  return {
    ...(held ?? plainName(name, paidThrough)),
    name,
    sponsor: textAt(info, 'clID'),
    paidThrough,
    registeredAt: parseInstant(textAt(info, 'crDate') ?? ''),
    transferredAt: parseInstant(textAt(info, 'trDate') ?? ''),
    statuses,
    lock: statuses.includes('clientTransferProhibited'),
    nameServers,
  };
}

function plainName(name: string, paidThrough: Instant): HeldName {
  return {
    name,
    sponsor: null,
    paidThrough,
    registeredAt: null,
    transferredAt: null,
    setting: 'unknown',
    settingSince: null,
    failure: null,
    lock: false,
    privacy: null,
    statuses: [],
    stateSince: null,
    nameServers: [],
    premium: null,
    receipt: null,
  };
}

const SETTINGS = ['on', 'off', 'stalled'] as const;

function heldName({ text, attributes }: Node): HeldName {
  const statuses = (attributes.statuses ?? '').split(' ').filter((status) => status !== '');
  return {
    ...plainName(text, (parseInstant(attributes.exDate ?? '') ?? 0) as Instant),
    registeredAt: parseInstant(attributes.crDate ?? ''),
    transferredAt: parseInstant(attributes.trDate ?? ''),
    setting: SETTINGS.find((setting) => setting === attributes.autoRenew) ?? 'unknown',
    settingSince: parseInstant(attributes.autoRenewSince ?? ''),
    failure: attributes.failure ?? null,
    lock: attributes.lock === 'true',
    privacy: attributes.privacy === undefined ? null : attributes.privacy === 'true',
    statuses,
    stateSince: parseInstant(attributes.stateSince ?? ''),
    premium: amountOf(attributes.premium, attributes.currency),
    receipt: attributes.receipt
      ? {
          clTRID: attributes.receiptFor ?? null,
          svTRID: attributes.receipt,
          amount: amountOf(attributes.taken, attributes.currency),
          paymentMethod: attributes.takenBy ?? null,
        }
      : null,
  };
}

/** An amount of a currency that both are known; `null` otherwise. */
export function amountOf(text: string | undefined | null, currency: string | undefined | null): Amount | null {
  return text && currency && isCurrency(currency) ? parseDecimal(text, currency) : null;
}

/** A page of what a login holds: our extension. */
export interface HoldingPage {
  readonly balance: Amount | null;
  readonly paymentMethods: readonly {
    readonly kind: 'balance' | 'card' | 'wallet' | 'bank';
    readonly label: string;
    readonly endsMonth: string | null;
  }[];
  /** What is not told of them is `null`. */
  readonly rules: {
    readonly leadDays: number | null;
    readonly lateDays: number | null;
    readonly lateFee: Amount | null;
    readonly yearsPerCharge: number | null;
    readonly retryDays: readonly number[] | null;
    readonly auctionDay: number | null;
    readonly taxPercent: number | null;
  } | null;
  readonly names: readonly HeldName[];
  /** There are more names after the last of these. */
  readonly more: boolean;
}

const KINDS = ['balance', 'card', 'wallet', 'bank'] as const;

export function readHolding(response: EppResponse): HoldingPage | null {
  const holding = at(response.data, 'infData');
  const balance = at(holding, 'balance');
  if (!holding || !balance) return null;
  const currency = balance.attributes.currency ?? '';
  const rules = at(holding, 'rules')?.attributes;
  return {
    balance: amountOf(balance.text, currency),
    paymentMethods: (holding.children.paymentMethod ?? []).flatMap(({ text, attributes }) => {
      const kind = KINDS.find((one) => one === attributes.kind);
      return kind ? [{ kind, label: text, endsMonth: attributes.ends ?? null }] : [];
    }),
    rules: rules
      ? {
          leadDays: numberOf(rules.lead),
          lateDays: numberOf(rules.late),
          lateFee: amountOf(rules.lateFee, currency),
          yearsPerCharge: numberOf(rules.years),
          retryDays: rules.retry === undefined ? null : rules.retry.split(' ').filter(Boolean).map(Number),
          auctionDay: numberOf(rules.auction),
          taxPercent: numberOf(rules.tax),
        }
      : null,
    names: (holding.children.name ?? []).map(heldName),
    more: holding.children.more !== undefined,
  };
}

/** A figure that was told; `null` for none, since nothing is taken for nothing. */
function numberOf(text: string | undefined): number | null {
  return text !== undefined && /^\d+(\.\d+)?$/.test(text) ? Number(text) : null;
}

/** What a registrar asks for one name (RFC 8748 section 5.1.1). */
export interface FeeQuote {
  readonly name: string;
  readonly premium: boolean;
  readonly fees: readonly { readonly command: string; readonly years: number; readonly total: Amount | null }[];
}

export function readFeeCheck(response: EppResponse): FeeQuote[] {
  const check = response.extension?.children.chkData?.find((node) => node.children.cd);
  const currency = textAt(check, 'currency');
  return (check?.children.cd ?? []).map((node) => ({
    name: textAt(node, 'objID') ?? '',
    premium: (textAt(node, 'class') ?? 'standard').toLowerCase() !== 'standard',
    fees: (node.children.command ?? []).map((one) => ({
      command: one.attributes.name ?? '',
      years: Number(textAt(one, 'period') ?? 1),
      total: one.children.fee ? sumOf(one.children.fee, textAt(node, 'currency') ?? currency) : null,
    })),
  }));
}

function sumOf(fees: readonly Node[], currency: string | null): Amount | null {
  const amounts = fees.map((fee) => amountOf(fee.text, currency));
  return amounts.reduce<Amount | null>(
    (sum, one) => (sum && one ? { minor: sum.minor + one.minor, currency: one.currency } : null),
    amounts[0] ? { minor: 0, currency: amounts[0].currency } : null,
  );
}

/** What a renewal came to: the new end, what was taken, and the balance after it. */
export interface Renewed {
  readonly paidThrough: Instant;
  readonly taken: Amount | null;
  readonly balance: Amount | null;
  /** What it was paid by, where the registrar says so. */
  readonly paymentMethod: string | null;
}

/** The answer to a renewal (RFC 5731 section 3.2.3, RFC 8748 section 5.2.3). */
export function readRenewal(response: EppResponse): Renewed | null {
  const paidThrough = parseInstant(textAt(response.data, 'renData', 'exDate') ?? '');
  if (paidThrough === null) return null;
  const fee = at(response.extension, 'renData');
  const currency = textAt(fee, 'currency');
  return {
    paidThrough,
    taken: fee?.children.fee ? sumOf(fee.children.fee, currency) : null,
    balance: amountOf(textAt(fee, 'balance'), currency),
    paymentMethod: textAt(response.extension, 'paid'),
  };
}

/** What was taken for a change, or given back, and the balance after it (RFC 8748 section 5.2). */
export interface Taken {
  readonly taken: Amount | null;
  readonly balance: Amount | null;
  /** What it was paid by, where the registrar says so. */
  readonly paymentMethod: string | null;
}

/** The fee of an update or deletion: where the answer has none, nothing was taken. */
export function readTaken(response: EppResponse): Taken {
  const { updData, delData, trnData, creData } = response.extension?.children ?? {};
  const fee = (updData ?? delData ?? trnData ?? creData)?.[0] ?? null;
  const currency = textAt(fee, 'currency');
  const credit = fee?.children.credit;
  return {
    taken: fee?.children.fee ? sumOf(fee.children.fee, currency) : credit ? sumOf(credit, currency) : null,
    balance: amountOf(textAt(fee, 'balance'), currency),
    paymentMethod: textAt(response.extension, 'paid'),
  };
}
