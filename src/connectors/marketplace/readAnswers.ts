import type { AuctionOutcome } from '@/core/selling';
import { type Instant, parseInstant } from '@/core/time';
import { MARKETPLACE_STATES, type MarketplaceEvent, type MarketplaceListingState, type UnreadEvent } from './port';

type Json = Readonly<Record<string, unknown>>;

/** What is said is not what was agreed: the answer is not used. */
class Unreadable extends Error {}

const object = (value: unknown): Json => {
  if (typeof value !== 'object' || value === null || Array.isArray(value)) throw new Unreadable('no object');
  return value as Json;
};
const text = (value: unknown): string => {
  if (typeof value !== 'string' || value.length > 4000) throw new Unreadable('no text');
  return value;
};
const textOrNull = (value: unknown): string | null => (value === null || value === undefined ? null : text(value));
const whole = (value: unknown): number => {
  if (typeof value !== 'number' || !Number.isSafeInteger(value) || value < 0) throw new Unreadable('no whole number');
  return value;
};
const instantOf = (value: unknown): Instant => {
  const at = parseInstant(text(value));
  if (at === null) throw new Unreadable('no instant');
  return at;
};
const instantOrNull = (value: unknown): Instant | null =>
  value === null || value === undefined ? null : instantOf(value);
const oneOf = <T extends string>(value: unknown, list: readonly T[]): T => {
  const found = list.find((one) => one === value);
  if (found === undefined) throw new Unreadable(`not ${list.join(', ')}`);
  return found;
};

/** Reads with `read`; `null` when the answer is not as agreed. */
export function readAs<T>(read: (json: unknown) => T, json: unknown): T | null {
  try {
    return read(json);
  } catch (error) {
    if (error instanceof Unreadable) return null;
    throw error;
  }
}

export const readTitle = (json: unknown): string => text(object(json).title);
export const readSaleRef = (json: unknown): string => text(object(json).sale);
export const readThreadRef = (json: unknown): string => text(object(json).thread);

export function readListingState(json: unknown): MarketplaceListingState {
  const state = object(json);
  const proof = state.proof === null || state.proof === undefined ? null : object(state.proof);
  const auction = state.auction === null || state.auction === undefined ? null : object(state.auction);
  const provedBy = textOrNull(state.provedBy);
  return {
    name: text(state.name),
    status: oneOf(state.status, MARKETPLACE_STATES),
    proof: proof && { host: text(proof.host), text: text(proof.text) },
    provedBy: provedBy === null ? null : oneOf(provedBy, ['txt', 'mail', 'account'] as const),
    reviewUntil: instantOrNull(state.reviewUntil),
    reason: textOrNull(state.reason),
    auction: auction && { opensAt: instantOf(auction.opensAt), closesAt: instantOf(auction.closesAt) },
  };
}

function readOutcome(json: unknown): AuctionOutcome {
  const outcome = object(json);
  const kind = oneOf(outcome.kind, ['sold', 'unsold', 'cancelled'] as const);
  if (kind === 'cancelled') return { kind };
  if (kind === 'sold')
    return {
      kind,
      to: text(outcome.to),
      priceMinor: whole(outcome.priceMinor),
      how: oneOf(outcome.how, ['bid', 'buy now'] as const),
    };
  return {
    kind,
    highest: textOrNull(outcome.highest),
    priceMinor: outcome.priceMinor === null ? null : whole(outcome.priceMinor),
  };
}

const MOST_EVENTS = 5000;

/** The events of one answer, in their order. What cannot be understood keeps its number. */
export function readEvents(json: unknown): (MarketplaceEvent | UnreadEvent)[] {
  const { events } = object(json);
  if (!Array.isArray(events) || events.length > MOST_EVENTS) throw new Unreadable('no events');
  return events.map((one) => {
    const event = object(one);
    const head = { id: whole(event.id), at: instantOf(event.at) };
    return readAs(() => readEvent(head, event), null) ?? { ...head, kind: 'unread' };
  });
}

function readEvent(head: { id: number; at: Instant }, event: Json): MarketplaceEvent {
  const kind = text(event.kind);
  switch (kind) {
    case 'listing':
      return { ...head, kind, state: readListingState(event.state) };
    case 'offer':
      return {
        ...head,
        kind,
        name: text(event.name),
        thread: text(event.thread),
        figure: text(event.figure),
        buyer: text(event.buyer),
        minor: whole(event.minor),
        currency: text(event.currency),
        lapsesAt: instantOrNull(event.lapsesAt),
      };
    case 'declined':
      return { ...head, kind, thread: text(event.thread) };
    case 'bid':
      return {
        ...head,
        kind,
        name: text(event.name),
        bid: text(event.bid),
        bidder: text(event.bidder),
        priceMinor: whole(event.priceMinor),
        leader: text(event.leader),
        reserveMet: event.reserveMet === true,
        nextMinor: event.nextMinor === undefined || event.nextMinor === null ? null : whole(event.nextMinor),
        closesAt: instantOf(event.closesAt),
      };
    case 'closed':
      return { ...head, kind, name: text(event.name), outcome: readOutcome(event.outcome) };
    case 'purchase':
      return {
        ...head,
        kind,
        name: text(event.name),
        sale: text(event.sale),
        how: oneOf(event.how, ['offer', 'bid', 'buy now'] as const),
        thread: textOrNull(event.thread),
        buyer: text(event.buyer),
        minor: whole(event.minor),
        currency: text(event.currency),
      };
    case 'paid':
    case 'not paid':
    case 'arrived':
      return { ...head, kind, sale: text(event.sale) };
    case 'buyer':
      return {
        ...head,
        kind,
        sale: text(event.sale),
        handover: oneOf(event.handover, ['push', 'transfer'] as const),
        account: text(event.account),
      };
    case 'dispute':
      return { ...head, kind, sale: text(event.sale), note: text(event.note) };
    case 'released':
      return {
        ...head,
        kind,
        sale: text(event.sale),
        commissionMinor: whole(event.commissionMinor),
        feesMinor: whole(event.feesMinor),
        proceedsMinor: whole(event.proceedsMinor),
      };
    default:
      throw new Unreadable(kind);
  }
}
