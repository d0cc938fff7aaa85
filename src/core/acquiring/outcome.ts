import type { Amount } from '../money';

/**
 * What is known of a name that one would like to have. `perhaps`: no record of it is there, and nobody has said that it is sold; `premium`:
 * available at a price of its own.
 */
export const OUTCOMES = ['available', 'premium', 'perhaps', 'reserved', 'taken', 'unknown'] as const;
export type OutcomeKind = (typeof OUTCOMES)[number];

/** Who was asked, the surest first. */
export const ASKED_BY = ['link', 'rdap', 'whois', 'dns'] as const;
export type AskedBy = (typeof ASKED_BY)[number];

/** What a registrar's link answered: may it be registered there, and what does it cost (RFC 5731 section 3.1.1, RFC 8748 section 5.1.1). */
export interface LinkAnswer {
  readonly avail: boolean;
  /** The server's own words where it is not. */
  readonly reason: string | null;
  /** A class of its own: not `standard`. */
  readonly isPremium: boolean;
  /** For one year, and for each later one; `null` where it was not said. */
  readonly register: Amount | null;
  readonly renew: Amount | null;
}

/** What was answered, by whoever was asked; `null` who was not, or gave no usable answer. */
export interface Answers {
  readonly link: LinkAnswer | null;
  /** Whether a registration record is there. */
  readonly record: { readonly by: 'rdap' | 'whois'; readonly found: boolean } | null;
  /** Whether the zone above has a delegation for it. */
  readonly delegated: boolean | null;
}

export interface Verdict {
  readonly kind: OutcomeKind;
  readonly by: AskedBy | null;
  /** How sure that is and why, in words; empty where nothing needs saying. */
  readonly why: string;
}

/**
 * What answers come to. A link that would register it outranks a record that is (still) there; not available and without a record is
 * reserved or blocked; a missing record alone is only a perhaps; a missing delegation proves nothing.
 */
export function judgeAnswers({ link, record, delegated }: Answers): Verdict {
  if (link?.avail) {
    if (!link.isPremium) return { kind: 'available', by: 'link', why: '' };
    const why = link.register && link.renew ? '' : 'it has a price of its own, which was not said';
    return { kind: 'premium', by: 'link', why };
  }
  if (link) {
    if (record?.found) return { kind: 'taken', by: record.by, why: '' };
    if (record)
      return { kind: 'reserved', by: 'link', why: `not sold, and not registered: reserved or blocked${said(link)}` };
    if (delegated) return { kind: 'taken', by: 'dns', why: '' };
    return { kind: 'taken', by: 'link', why: `not sold: taken or reserved${said(link)}; no record was read yet` };
  }
  if (record?.found) return { kind: 'taken', by: record.by, why: '' };
  if (delegated) return { kind: 'taken', by: 'dns', why: 'it has name servers' };
  if (record)
    return { kind: 'perhaps', by: record.by, why: 'no record of it; it may be reserved, or have a price of its own' };
  if (delegated === false) return { kind: 'unknown', by: 'dns', why: 'it has no name servers, which proves nothing' };
  return { kind: 'unknown', by: null, why: 'nobody could say' };
}

const said = ({ reason }: LinkAnswer) => (reason === null || reason === '' ? '' : ` (“${reason}”)`);

/** An answer is used again for so long; after that the name is asked for anew. */
export const ANSWER_HOLDS_HOURS = 6;

/** Outcomes of names that may be registered, as far as anybody said. */
export const isOpen = (kind: string): boolean => kind === 'available' || kind === 'premium' || kind === 'perhaps';
