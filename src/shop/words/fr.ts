import type { ShopWords } from './words';

export const fr: ShopWords = {
  forSale: (name) => `${name} est à vendre.`,
  price: (amount) => `Son prix est de ${amount}.`,
  offers: 'Il ira à qui fera une bonne offre.',
  offersToo: 'Les offres sont étudiées.',
  atLeast: (amount) => `Une offre commence à ${amount}.`,
  auction: (time) => `Une enchère court jusqu’au ${time}.`,
  bid: (amount) => `Le prix est à ${amount}.`,
  noBid: 'Personne n’a encore enchéri.',
  nextBid: (amount) => `La prochaine enchère est de ${amount} ou plus.`,
  buyNow: (amount) => `On peut l’avoir tout de suite pour ${amount}.`,
  reserve: {
    none: 'Il n’y a pas de prix de réserve.',
    met: 'Le prix de réserve est atteint.',
    'not met': 'Le prix de réserve n’est pas encore atteint.',
  },
  reserveIs: (amount) => `Le prix de réserve est de ${amount}.`,
  length: (letters) => (letters === 1 ? 'un caractère' : `${letters} caractères`),
  spelled: (letters) => `épelé ${letters}`,
  alsoWritten: (ascii) => `écrit ${ascii} là où seules les lettres de base passent`,
  withSite: 'Ce qui s’y trouve est vendu avec lui.',
  handover: 'Comment il change de mains',
  handoverTerms: [
    'Le prix est d’abord payé et gardé ; dès lors le nom est réservé.',
    'Il est remis sur votre compte chez le même bureau d’enregistrement, ou transféré vers le vôtre.',
    'La vente est réglée une fois le nom chez vous.',
  ],
};
