export {
  AUTO_RENEW_SETTINGS,
  type AutoRenewSetting,
  type FundedAccount,
  PAYMENT_METHOD_KINDS,
  type PaymentMethod,
  type PaymentMethodKind,
  STANDINGS,
  type Standing,
} from './account';
export { type Charge, cardIsGood, type FailureCause, pay } from './charge';
export { ChargeTable } from './chargeTable';
export {
  balanceNeeded,
  type ChargedName,
  type ChargedNames,
  type ChargedState,
  type ChargesOn,
  chargedNames,
  chargedState,
  chargesOn,
  isChargedAtOnce,
  playCharges,
  playingCharges,
  projectCharges,
  sharesBalance,
} from './project';
