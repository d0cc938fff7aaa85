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
export {
  balanceNeeded,
  type ChargedName,
  type ChargedState,
  chargedState,
  isChargedAtOnce,
  projectCharges,
} from './project';
