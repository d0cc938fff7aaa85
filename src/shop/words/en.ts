import type { ShopWords } from './words';

export const en: ShopWords = {
  forSale: (name) => `${name} is for sale.`,
  price: (amount) => `Its price is ${amount}.`,
  offers: 'It goes to whoever makes a good offer.',
  offersToo: 'Offers are considered.',
  atLeast: (amount) => `An offer begins at ${amount}.`,
  auction: (time) => `An auction runs until ${time}.`,
  bid: (amount) => `The price stands at ${amount}.`,
  noBid: 'Nobody has bid yet.',
  nextBid: (amount) => `The next bid is ${amount} or more.`,
  buyNow: (amount) => `It can be had at once for ${amount}.`,
  reserve: { none: 'There is no reserve.', met: 'The reserve is met.', 'not met': 'The reserve is not met yet.' },
  reserveIs: (amount) => `The reserve is ${amount}.`,
  length: (letters) => (letters === 1 ? 'one character' : `${letters} characters`),
  spelled: (letters) => `spelled ${letters}`,
  alsoWritten: (ascii) => `written ${ascii} where only basic letters are taken`,
  withSite: 'What stands at it is sold with it.',
  handover: 'How it changes hands',
  handoverTerms: [
    'The price is paid first and held; the name is reserved from then on.',
    'It is pushed to your account at the same registrar, or transferred to yours.',
    'The sale is settled once you hold the name.',
  ],
};
