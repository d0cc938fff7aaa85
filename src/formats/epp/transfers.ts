import { type Instant, parseInstant } from '@/core/time';
import { at, textAt } from './document';
import type { EppResponse } from './responses';

/** How a transfer stands (RFC 5731 section 3.2.4). */
export const TRANSFER_STATUSES = [
  'pending',
  'clientApproved',
  'clientRejected',
  'clientCancelled',
  'serverApproved',
  'serverCancelled',
] as const;
export type TransferStatus = (typeof TRANSFER_STATUSES)[number];

/** The last transfer of a name: who asked and when, who has to act and by when (who acted and when, once it is over). */
export interface TransferState {
  readonly name: string;
  readonly status: TransferStatus;
  readonly requestedBy: string;
  readonly requestedAt: Instant;
  readonly actBy: string;
  readonly actAt: Instant;
  /** The end of the term once it is through. */
  readonly newEnd: Instant | null;
}

/** What is said of a transfer, in an answer or in a message (RFC 5731 sections 3.1.3, 3.2.4); `null` where nothing is. */
export function readTransfer(response: EppResponse): TransferState | null {
  const data = at(response.data, 'trnData');
  const status = TRANSFER_STATUSES.find((one) => one === textAt(data, 'trStatus'));
  const name = textAt(data, 'name');
  const [requestedAt, actAt] = [textAt(data, 'reDate'), textAt(data, 'acDate')].map((text) => parseInstant(text ?? ''));
  if (!status || name === null || !requestedAt || !actAt) return null;
  return {
    name: name.toLowerCase(),
    status,
    requestedBy: textAt(data, 'reID') ?? '',
    requestedAt,
    actBy: textAt(data, 'acID') ?? '',
    actAt,
    newEnd: parseInstant(textAt(data, 'exDate') ?? ''),
  };
}
