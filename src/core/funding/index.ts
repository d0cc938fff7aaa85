export {
  AUTO_RENEW_SETTINGS,
  type AutoRenewSetting,
  cardIsGood,
  type FundedAccount,
  MEANS_KINDS,
  type Means,
  type MeansKind,
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
