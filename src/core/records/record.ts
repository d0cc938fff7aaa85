import type { Instant, TermEnd } from '../time';
import type { EppStatus } from './statuses';

/** Who says so: the ending's registry, or the registrar of the name. */
export const RECORD_SOURCES = ['registry', 'registrar', 'pasted'] as const;
export type RecordSource = (typeof RECORD_SOURCES)[number];
export type RecordProtocol = 'rdap' | 'whois';

export interface RecordEvent {
  readonly action: string;
  readonly at: Instant;
}

/** A contact of a name, as far as it is shown. */
export interface RecordContact {
  readonly role: string;
  readonly name: string | null;
  readonly organisation: string | null;
  readonly mail: string | null;
  readonly phone: string | null;
  readonly country: string | null;
  /** A form to reach it, where no address is shown. */
  readonly form: string | null;
  /** The name is held back. */
  readonly redacted: boolean;
}

/** A registration record in one shape, whichever protocol brought it. What was not said is `null` or empty. */
export interface RegistrationRecord {
  readonly protocol: RecordProtocol;
  readonly ascii: string;
  readonly unicode: string | null;
  /** False: the name is not registered. */
  readonly found: boolean;
  readonly handle: string | null;
  readonly statuses: readonly EppStatus[];
  readonly registered: Instant | null;
  /** The end of the term as the registry has it. */
  readonly expires: TermEnd | null;
  /** The end of the term as the registrar has it, where the record tells both. */
  readonly registrarExpires: TermEnd | null;
  readonly changed: Instant | null;
  readonly events: readonly RecordEvent[];
  readonly registrar: string | null;
  /** IANA number of the registrar. */
  readonly registrarId: string | null;
  readonly abuseMail: string | null;
  readonly abusePhone: string | null;
  readonly holder: RecordContact | null;
  readonly contacts: readonly RecordContact[];
  readonly nameServers: readonly string[];
  readonly signed: boolean | null;
  /** Delegation signers, as `keyTag algorithm digestType digest`. */
  readonly ds: readonly string[];
  /** Whether the zone showed a key that the signers vouch for, when it was looked at; `null` when it was not. */
  readonly delegation: 'stands' | 'broken' | null;
  /** Where the registrar's own record is, when it names it. */
  readonly related: string | null;
  /** Where else to ask (WHOIS). */
  readonly referral: string | null;
  readonly conformance: readonly string[];
  /** Fields that were there and were not understood. */
  readonly notUnderstood: readonly string[];
}

/** A record that says nothing yet. */
export function blankRecord(protocol: RecordProtocol, ascii: string): RegistrationRecord {
  return {
    protocol,
    ascii,
    unicode: null,
    found: true,
    handle: null,
    statuses: [],
    registered: null,
    expires: null,
    registrarExpires: null,
    changed: null,
    events: [],
    registrar: null,
    registrarId: null,
    abuseMail: null,
    abusePhone: null,
    holder: null,
    contacts: [],
    nameServers: [],
    signed: null,
    ds: [],
    delegation: null,
    related: null,
    referral: null,
    conformance: [],
    notUnderstood: [],
  };
}

const REDACTED = /redacted|not disclosed|data protected|privacy|withheld|statutory mask/i;

/** True for a text that stands where a name is held back. */
export function isRedaction(text: string | null | undefined): boolean {
  return text !== null && text !== undefined && REDACTED.test(text);
}
