/** What the window says, in one language. Amounts, names and times are put in as they are written there. */
export interface ShopWords {
  readonly forSale: (name: string) => string;
  readonly price: (amount: string) => string;
  readonly offers: string;
  readonly offersToo: string;
  readonly atLeast: (amount: string) => string;
  readonly auction: (time: string) => string;
  readonly bid: (amount: string) => string;
  readonly noBid: string;
  readonly nextBid: (amount: string) => string;
  readonly buyNow: (amount: string) => string;
  readonly reserve: { readonly none: string; readonly met: string; readonly 'not met': string };
  readonly reserveIs: (amount: string) => string;
  readonly length: (letters: number) => string;
  readonly spelled: (letters: string) => string;
  readonly alsoWritten: (ascii: string) => string;
  readonly withSite: string;
  readonly handover: string;
  readonly handoverTerms: readonly string[];
}
