import type { Amount } from '@/core/money';
import { type Instant, parseInstant } from '@/core/time';
import { at, textAt } from './document';
import { amountOf, type EppResponse } from './responses';

/** What became of an order that the registrar had taken for later (RFC 5730 section 2.9.2.3, RFC 5731 section 3.3). */
export interface PendingResult {
  readonly name: string;
  /** The order's own id. */
  readonly clTRID: string | null;
  readonly isDone: boolean;
}

export function readPendingResult(response: EppResponse): PendingResult | null {
  const pan = at(response.data, 'panData');
  const name = at(pan, 'name');
  if (!name) return null;
  const result = name.attributes.paResult;
  return {
    name: name.text.toLowerCase(),
    clTRID: textAt(pan, 'paTRID', 'clTRID'),
    isDone: result === '1' || result === 'true',
  };
}

/** Something that happened by itself to a name, as a poll message tells it: our extension. */
export interface RegistrarEvent {
  readonly kind: string;
  readonly name: string;
  readonly paidThrough: Instant | null;
  readonly amount: Amount | null;
  readonly paymentMethod: string | null;
  /** The last instant to do what it asks for. */
  readonly until: Instant | null;
}

export function readEvent(response: EppResponse): RegistrarEvent | null {
  const event = at(response.data, 'event');
  if (!event) return null;
  const { kind, exDate, amount, currency, paymentMethod, until } = event.attributes;
  return {
    kind: kind ?? '',
    name: event.text,
    paidThrough: parseInstant(exDate ?? ''),
    amount: amountOf(amount, currency),
    paymentMethod: paymentMethod ?? null,
    until: parseInstant(until ?? ''),
  };
}
