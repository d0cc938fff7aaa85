import type { ShopWords } from './words';

export const pt: ShopWords = {
  forSale: (name) => `${name} está à venda.`,
  price: (amount) => `O preço é ${amount}.`,
  offers: 'Fica com quem fizer uma boa oferta.',
  offersToo: 'Consideram-se ofertas.',
  atLeast: (amount) => `Uma oferta começa em ${amount}.`,
  auction: (time) => `Decorre um leilão até ${time}.`,
  bid: (amount) => `O preço está em ${amount}.`,
  noBid: 'Ainda ninguém licitou.',
  nextBid: (amount) => `O próximo lance é de ${amount} ou mais.`,
  buyNow: (amount) => `Pode ser seu já por ${amount}.`,
  reserve: {
    none: 'Não há preço de reserva.',
    met: 'O preço de reserva foi atingido.',
    'not met': 'O preço de reserva ainda não foi atingido.',
  },
  reserveIs: (amount) => `O preço de reserva é ${amount}.`,
  length: (letters) => (letters === 1 ? 'um carácter' : `${letters} caracteres`),
  spelled: (letters) => `soletra-se ${letters}`,
  alsoWritten: (ascii) => `escrito ${ascii} onde só cabem letras básicas`,
  withSite: 'O que lá está vende-se com ele.',
  handover: 'Como muda de mãos',
  handoverTerms: [
    'Primeiro paga-se e o dinheiro fica guardado; a partir daí o nome está reservado.',
    'É passado para a sua conta no mesmo agente de registo, ou transferido para o seu.',
    'A venda fecha-se quando o nome estiver consigo.',
  ],
};
