/** EPP statuses (RFC 5731, RFC 3915) with the RDAP words for them: the whole mapping of RFC 8056 section 2. */
export const RDAP_STATUS = {
  addPeriod: 'add period',
  autoRenewPeriod: 'auto renew period',
  clientDeleteProhibited: 'client delete prohibited',
  clientHold: 'client hold',
  clientRenewProhibited: 'client renew prohibited',
  clientTransferProhibited: 'client transfer prohibited',
  clientUpdateProhibited: 'client update prohibited',
  inactive: 'inactive',
  linked: 'associated',
  ok: 'active',
  pendingCreate: 'pending create',
  pendingDelete: 'pending delete',
  pendingRenew: 'pending renew',
  pendingRestore: 'pending restore',
  pendingTransfer: 'pending transfer',
  pendingUpdate: 'pending update',
  redemptionPeriod: 'redemption period',
  renewPeriod: 'renew period',
  serverDeleteProhibited: 'server delete prohibited',
  serverHold: 'server hold',
  serverRenewProhibited: 'server renew prohibited',
  serverTransferProhibited: 'server transfer prohibited',
  serverUpdateProhibited: 'server update prohibited',
  transferPeriod: 'transfer period',
} as const;

export type EppStatus = keyof typeof RDAP_STATUS;

const squeezed = (text: string) => text.toLowerCase().replace(/[^a-z]/g, '');
const BY_WORDS = new Map<string, EppStatus>(
  (Object.entries(RDAP_STATUS) as [EppStatus, string][]).flatMap(([epp, rdap]) => [
    [squeezed(epp), epp],
    [squeezed(rdap), epp],
  ]),
);

/** Reads one status however it is written: EPP's word, RDAP's, with a link behind it; `null` for any other. */
export function readStatus(text: string): EppStatus | null {
  return BY_WORDS.get(squeezed(text.replace(/\s*\(?https?:.*$/i, ''))) ?? null;
}

export type StatusPhase = 'pending restore' | 'redemption' | 'pending delete' | 'provisional' | 'term';

/** The phase that statuses stand for. A pending restore outranks redemption, and that a pending deletion (RFC 3915). */
export function phaseOfStatuses(statuses: readonly EppStatus[]): StatusPhase {
  if (statuses.includes('pendingRestore')) return 'pending restore';
  if (statuses.includes('redemptionPeriod')) return 'redemption';
  if (statuses.includes('pendingDelete')) return 'pending delete';
  if (statuses.includes('autoRenewPeriod')) return 'provisional';
  return 'term';
}
