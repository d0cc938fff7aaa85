import type { AgendaItem } from '@/core/selling';

/** The page of the ledger that shows a name. */
export function namePage(ascii: string): string {
  return `/ledger/${encodeURIComponent(ascii)}`;
}

/** The page that deals with an item of the agenda. */
export function agendaPage({ about, ascii, nameId }: AgendaItem): string {
  switch (about.kind) {
    case 'offer':
      return `/selling/offers/${about.id}`;
    case 'sale':
      return `/selling/sales/${about.id}`;
    case 'auction':
      return `/selling/auctions/${about.id}`;
    case 'listings':
      return `/selling/names/${encodeURIComponent(ascii)}`;
    case 'price':
      return `/selling/price?names=${nameId}`;
  }
}
