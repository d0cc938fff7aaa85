export {
  type Amount,
  amount,
  currencyDigits,
  formatDecimal,
  GREATEST_MINOR,
  isCurrency,
  parseDecimal,
  plus,
  roundHalfAway,
  shareOf,
  sumByCurrency,
  times,
} from './amount';
export { SIGN_PATTERN } from './currencySigns';
export { type FigureStyle, formatAmount, formatFigure, spellAmount, wholeUnit } from './formatAmount';
export { NUMBER_STYLES, type NumberStyle, styleOfLocale, USUAL_STYLE } from './numberStyle';
export { convert, minorFactor, type Rate, rateOn, sumIn } from './rates';
export { type AmountContext, readAmount, readNumber } from './readAmount';
export { readPercent } from './readPercent';
