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
  sumByCurrency,
  times,
} from './amount';
export { formatAmount, formatFigure, wholeUnit } from './formatAmount';
export { convert, type Rate, sumIn } from './rates';
