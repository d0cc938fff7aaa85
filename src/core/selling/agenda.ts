import type { Amount } from '../money';
import type { Instant } from '../time';
import type { SaleStage } from './handover';

/** What may await the owner in selling, what costs most to leave first: a sale that is not handed over is money not paid. */
export const AGENDA_KINDS = [
  'handover',
  'offer to answer',
  'proof missing',
  'auction closing',
  'auction unsold',
  'listing refused',
  'to be seen live',
  'term too short',
  'never listed',
] as const;
export type AgendaKind = (typeof AGENDA_KINDS)[number];

/** What an item of the agenda is about: one of the things that are sold with, or the name itself. */
export type AgendaSubject =
  | { readonly kind: 'offer' | 'auction'; readonly id: number }
  | { readonly kind: 'sale'; readonly id: number; readonly stage: SaleStage }
  /** The listings of the name. */
  | { readonly kind: 'listings' }
  /** The name is to be priced. */
  | { readonly kind: 'price' };

/** One thing to do about one name, and until when. */
export interface AgendaItem {
  readonly kind: AgendaKind;
  readonly nameId: number;
  readonly ascii: string;
  readonly unicode: string;
  /** The last instant, or `null` where none presses. */
  readonly by: Instant | null;
  /** What it is about in figures: the offer, the price, the cost. */
  readonly minor: number | null;
  readonly currency: string | null;
  /** Of an offer: what is asked for the name. */
  readonly asking: Amount | null;
  /** Marketplace or buyer. */
  readonly who: string;
  /** What deals with it. */
  readonly about: AgendaSubject;
}

/** By kind, within it what is due first, then what is worth most. */
export function orderAgenda(items: readonly AgendaItem[]): AgendaItem[] {
  return [...items].sort(
    (a, b) =>
      AGENDA_KINDS.indexOf(a.kind) - AGENDA_KINDS.indexOf(b.kind) ||
      (a.by ?? Number.POSITIVE_INFINITY) - (b.by ?? Number.POSITIVE_INFINITY) ||
      (b.minor ?? 0) - (a.minor ?? 0) ||
      (a.ascii < b.ascii ? -1 : 1),
  );
}
