import type { ShopWords } from './words';

export const es: ShopWords = {
  forSale: (name) => `${name} está en venta.`,
  price: (amount) => `Su precio es de ${amount}.`,
  offers: 'Será de quien haga una buena oferta.',
  offersToo: 'Se estudian ofertas.',
  atLeast: (amount) => `Una oferta empieza en ${amount}.`,
  auction: (time) => `Hay una subasta abierta hasta ${time}.`,
  bid: (amount) => `El precio está en ${amount}.`,
  noBid: 'Nadie ha pujado todavía.',
  nextBid: (amount) => `La próxima puja es de ${amount} o más.`,
  buyNow: (amount) => `Se puede tener ya por ${amount}.`,
  reserve: {
    none: 'No hay precio de reserva.',
    met: 'Se ha alcanzado el precio de reserva.',
    'not met': 'Todavía no se ha alcanzado el precio de reserva.',
  },
  reserveIs: (amount) => `El precio de reserva es de ${amount}.`,
  length: (letters) => (letters === 1 ? 'un carácter' : `${letters} caracteres`),
  spelled: (letters) => `se deletrea ${letters}`,
  alsoWritten: (ascii) => `escrito ${ascii} donde solo caben letras básicas`,
  withSite: 'Lo que hay en él se vende con él.',
  handover: 'Cómo cambia de manos',
  handoverTerms: [
    'Primero se paga y el dinero queda en custodia; desde entonces el nombre está reservado.',
    'Se pasa a su cuenta en el mismo registrador, o se transfiere al suyo.',
    'La venta se liquida cuando usted tiene el nombre.',
  ],
};
