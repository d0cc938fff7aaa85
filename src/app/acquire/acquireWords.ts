import type { AskedBy, CellKind, RowFilter } from '@/core/acquiring';

/** An outcome in a word or two. */
export const KIND_WORDS: Readonly<Record<CellKind, string>> = {
  available: 'available',
  premium: 'available at its own price',
  perhaps: 'perhaps available',
  reserved: 'reserved',
  taken: 'taken',
  unknown: 'not known',
  'not asked': 'not asked yet',
  ours: 'ours',
  'not possible': 'not possible',
};

export const FILTER_WORDS: Readonly<Record<RowFilter, string>> = {
  all: 'all candidates',
  'to be had': 'to be had somewhere',
  'own price': 'at their own price',
  taken: 'taken somewhere',
  'not known': 'not known yet',
  changed: 'changed since last time',
};

/** Who was asked, in words. */
export const ASKED_WORDS: Readonly<Record<AskedBy | 'nobody', string>> = {
  link: 'by link',
  rdap: 'by RDAP',
  whois: 'by WHOIS',
  dns: 'by DNS',
  nobody: 'without an answer',
};

/** What each pattern that ships makes. */
export const PATTERN_WORDS: Readonly<Record<string, string>> = {
  '{a}': 'as typed',
  '{a}{b}': 'joined',
  '{a}-{b}': 'hyphen',
  'the{a}': 'with “the”',
  '{a:1}{b}': 'short form',
};

/** A number of letters in words. */
export const lettersWords = (count: number) => (count === 1 ? 'one letter' : `${count} letters`);
