import type { Policy } from './policy';

/** Letters beyond a-z, 0-9 and the hyphen that registries take, by ending. All from memory, unverified. */
const KNOWN: Readonly<Record<string, string>> = {
  de: 'áàăâåäãąāæćĉčċçďđéèĕêěëėęēğĝġģĥħíìĭîïĩįīıĵķĺľļłńňñņŋóòŏôöőõøōœĸŕřŗśŝšşßťţŧúùŭûůüűũųūŵýŷÿźžżðþ',
  nl: '',
  uk: '',
};

/** The letters that an ending's registry takes: as the office has said, else as is known; `null` where that is not known. */
export function lettersTaken({ ending, letters }: Pick<Policy, 'ending' | 'letters'>): string | null {
  return letters ?? KNOWN[ending] ?? null;
}

/**
 * The first letter of a label that an ending's registry does not take (RFC 5891 section 4.3); `null` where all are taken, and where its
 * letters are not known. `unicode` is the U-label form.
 */
export function letterNotTaken(unicode: string, policy: Pick<Policy, 'ending' | 'letters'>): string | null {
  const taken = lettersTaken(policy);
  if (taken === null) return null;
  for (const letter of unicode) if (letter > '\u007f' && !taken.includes(letter)) return letter;
  return null;
}
