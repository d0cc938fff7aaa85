import type { Domain } from './types';

/** The office whose names these are. */
export const OFFICE = 'Harbour Office';

/** People and firms that register names of their own. */
export const STRANGERS = [
  'Ketterby Boatyard',
  'Oda Fennimore',
  'Pilgrave & Sons',
  'Tessel Weatherglass',
  'Ivo Marchmain',
] as const;

/** A plain registration of the office, with auto-renew off. */
export function blankDomain(name: string, registrar: string, createdAt: number, paidThrough: number): Domain {
  return {
    name,
    ending: name.slice(name.indexOf('.') + 1),
    registrar,
    owner: 'office',
    holder: OFFICE,
    createdAt,
    paidThrough,
    state: 'registered',
    since: createdAt,
    deletedAt: null,
    auto: 'off',
    autoSince: createdAt,
    attemptAt: null,
    failure: null,
    offAt: null,
    stands: null,
    boughtYears: 1,
    premiumMinor: null,
    lock: false,
    privacy: false,
    nameServers: [],
    authInfo: '',
    confirmMailBy: null,
    hold: false,
    movedAt: null,
    codeSetAt: null,
    transfer: null,
    lastTransfer: null,
    toldEnd: paidThrough <= createdAt ? paidThrough : null,
    lastReceipt: null,
    forLater: null,
  };
}
