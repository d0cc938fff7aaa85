export {
  AUTO_RENEW_SETTINGS,
  type AutoRenewSetting,
  cardIsGood,
  type FundedAccount,
  PAYMENT_METHOD_KINDS,
  type PaymentMethod,
  type PaymentMethodKind,
  STANDINGS,
  type Standing,
} from './account';
export type { Charge, FailureCause } from './charge';
export {
  balanceNeeded,
  type ChargedName,
  type ChargedState,
  chargedState,
  isChargedAtOnce,
  projectCharges,
} from './project';
