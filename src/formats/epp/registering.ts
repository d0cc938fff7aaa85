import type { Amount } from '@/core/money';
import { type Instant, parseInstant } from '@/core/time';
import { at, textAt } from './document';
import { type EppResponse, readFeeCheck, readTaken, type Taken } from './responses';

/** Whether a name may be registered, and what that costs (RFC 5731 section 3.1.1, RFC 8748 section 5.1.1). */
export interface Availability {
  /** A-label form. */
  readonly name: string;
  readonly avail: boolean;
  /** Why not, in the server's own words. */
  readonly reason: string | null;
  /** It has a class of its own: its prices are not the ending's. */
  readonly premium: boolean;
  /** What the asked term costs, and what as many years cost later; `null` where it was not said. */
  readonly register: Amount | null;
  readonly renew: Amount | null;
}

/** Names that the answer does not speak of are left out: nothing is known of them. */
export function readAvailability(response: EppResponse): Availability[] {
  const fees = new Map(readFeeCheck(response).map((quote) => [quote.name.toLowerCase(), quote]));
  return (at(response.data, 'chkData')?.children.cd ?? []).flatMap((node): Availability[] => {
    const named = at(node, 'name');
    const avail = named?.attributes.avail;
    if (!named || (avail !== '0' && avail !== '1' && avail !== 'true' && avail !== 'false')) return [];
    const quote = fees.get(named.text.toLowerCase());
    const feeOf = (command: string) => quote?.fees.find((fee) => fee.command === command)?.total ?? null;
    return [
      {
        name: named.text.toLowerCase(),
        avail: avail === '1' || avail === 'true',
        reason: textAt(node, 'reason'),
        premium: quote?.premium ?? false,
        register: feeOf('create'),
        renew: feeOf('renew'),
      },
    ];
  });
}

/** A name that was registered: since when, until when, and what was taken (RFC 5731 section 3.2.1). */
export interface Created extends Taken {
  readonly createdAt: Instant;
  readonly paidThrough: Instant;
}

/** `null` where the answer does not tell both dates. */
export function readCreation(response: EppResponse): Created | null {
  const createdAt = parseInstant(textAt(response.data, 'creData', 'crDate') ?? '');
  const paidThrough = parseInstant(textAt(response.data, 'creData', 'exDate') ?? '');
  return createdAt === null || paidThrough === null ? null : { createdAt, paidThrough, ...readTaken(response) };
}
