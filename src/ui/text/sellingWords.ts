import type { AgendaKind, Finding, ListingStatus, PriceName, Rung, SaleStage } from '@/core/selling';
import { formatAmount } from './figures';
import { type DayStyle, dayWords } from './words';

/** The prices of a listing in words. */
export const PRICE_WORDS: Readonly<Record<PriceName, string>> = {
  minimum: 'minimum offer',
  start: 'start',
  reserve: 'reserve',
  asking: 'asking',
  buyNow: 'buy now',
};

export const RUNG_WORDS: Readonly<Record<Rung['kind'], string>> = {
  ...PRICE_WORDS,
  cost: 'has cost',
  'no loss': 'no loss from',
};

export const AGENDA_WORDS: Readonly<Record<AgendaKind, string>> = {
  'offer to answer': 'Offers to answer',
  handover: 'Sales at your turn',
  'proof missing': 'Not proved yet: nobody sees them',
  'auction closing': 'Auctions that close within three days',
  'auction unsold': 'Auctions that did not sell',
  'listing refused': 'Listings that were refused',
  'to be seen live': 'Look whether they are live',
  'term too short': 'The term ends before a sale would be handed over',
  'never listed': 'Never listed, and they cost most',
};

export const STATUS_WORDS: Readonly<Record<ListingStatus, string>> = {
  draft: 'draft',
  sending: 'on its way',
  unproved: 'not proved',
  'in review': 'in review',
  live: 'live',
  refused: 'refused',
  withdrawing: 'being withdrawn',
  withdrawn: 'withdrawn',
  sold: 'sold',
  ended: 'ended',
};

/** What a stage of a sale waits for. */
export const STAGE_WORDS: Readonly<Record<SaleStage, string>> = {
  agreed: 'agreed: the buyer pays',
  'money held': 'the money is held: the buyer says where the name goes',
  'buyer known': 'hand the name over',
  'handed over': 'handed over: it has to arrive',
  arrived: 'arrived: the money is released',
  done: 'done',
  'not paid': 'not paid',
  refused: 'refused',
  dispute: 'in dispute',
};

/** What is wrong with a listing, or worth knowing, as a sentence. */
export function findingWords(finding: Finding, currency: string, style: DayStyle): string {
  const { code, price, other, figure, at } = finding;
  const money = figure === null ? '' : formatAmount({ minor: figure, currency }, true);
  const name = price === null ? '' : PRICE_WORDS[price];
  switch (code) {
    case 'price missing':
      return `Set the ${name} price.`;
    case 'price not read':
      return `The ${name} price is no amount.`;
    case 'price not whole':
      return `The ${name} price has to be a whole amount above nothing.`;
    case 'order of prices':
      return `The ${name} price has to be ${price === 'minimum' || price === 'start' || price === 'asking' ? 'no more than' : 'below'} the ${other === null ? '' : PRICE_WORDS[other]} price.`;
    case 'currency not taken':
      return `This marketplace does not sell in ${currency}.`;
    case 'no auctions here':
      return 'This marketplace holds no auctions.';
    case 'auction length':
      return `Choose another length: ${figure} days at most here.`;
    case 'too long':
      return `${figure === null ? '' : figure.toLocaleString('en')} letters at most.`;
    case 'payout not set':
      return 'Set where the marketplace pays out to, there and under Setup, before you list.';
    case 'cost not known':
      return 'What the name has cost is not known in this currency: no profit is shown.';
    case 'fees not known':
      return `What the marketplace keeps is not known in ${currency}: save a rate under Setup, Marketplaces.`;
    case 'below cost':
      return `The ${name} price is ${money} below what the name has cost.`;
    case 'proceeds below cost':
      return `At the ${name} price a loss is left after fees: no loss from ${money}.`;
    case 'term too short':
      return `The term ends before ${at === null ? 'then' : dayWords(at, style)}, when a sale would be handed over.`;
    case 'transfer lock':
      return `Until ${at === null ? 'then' : dayWords(at, style)} it can only be pushed inside its registrar.`;
    case 'not at the account':
      return 'The registration record has it at another registrar than the ledger: look first.';
  }
}

/** What came of sending kept drafts, as a sentence. */
export function sentWords({
  sent,
  stopped,
}: {
  readonly sent: number;
  readonly stopped: readonly { readonly ascii: string }[];
}): string {
  const went = sent === 1 ? 'One sent.' : `${sent} sent.`;
  const [first] = stopped;
  if (!first) return went;
  return stopped.length === 1
    ? `${went} ${first.ascii} stays a draft: its prices have something to mend, see Price.`
    : `${went} ${first.ascii} and ${stopped.length - 1} more stay drafts: their prices have something to mend, see Price.`;
}

/** A yearly return as percent; large ones as a factor. */
export function returnWords(rate: number | null): string {
  if (rate === null) return '–';
  if (rate >= 1000) return 'over ×1,000';
  return rate >= 10 ? `×${Math.round(rate + 1).toLocaleString('en')} a year` : `${Math.round(rate * 100)} % a year`;
}
