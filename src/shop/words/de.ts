import type { ShopWords } from './words';

export const de: ShopWords = {
  forSale: (name) => `${name} ist zu verkaufen.`,
  price: (amount) => `Der Preis ist ${amount}.`,
  offers: 'Der Name geht an ein gutes Angebot.',
  offersToo: 'Angebote werden geprüft.',
  atLeast: (amount) => `Ein Angebot beginnt bei ${amount}.`,
  auction: (time) => `Eine Auktion läuft bis ${time}.`,
  bid: (amount) => `Der Preis steht bei ${amount}.`,
  noBid: 'Noch hat niemand geboten.',
  nextBid: (amount) => `Das nächste Gebot ist ${amount} oder mehr.`,
  buyNow: (amount) => `Sofort zu haben für ${amount}.`,
  reserve: {
    none: 'Es gibt keinen Mindestpreis.',
    met: 'Der Mindestpreis ist erreicht.',
    'not met': 'Der Mindestpreis ist noch nicht erreicht.',
  },
  reserveIs: (amount) => `Der Mindestpreis ist ${amount}.`,
  length: (letters) => (letters === 1 ? 'ein Zeichen' : `${letters} Zeichen`),
  spelled: (letters) => `buchstabiert ${letters}`,
  alsoWritten: (ascii) => `geschrieben ${ascii}, wo nur einfache Buchstaben gehen`,
  withSite: 'Was dort steht, wird mitverkauft.',
  handover: 'Wie der Name den Besitzer wechselt',
  handoverTerms: [
    'Zuerst wird gezahlt und das Geld verwahrt; von da an ist der Name zugesagt.',
    'Er wird in Ihr Konto beim selben Registrar übertragen, oder zu Ihrem Registrar.',
    'Abgerechnet wird, sobald der Name bei Ihnen ist.',
  ],
};
