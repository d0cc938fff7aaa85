/** Valid though a rule below says no (RFC 5892 section 2.6, F). */
const ALWAYS = new Set('\u00df\u03c2\u06fd\u06fe\u0f0b\u3007');
/** Never valid though they are letters (RFC 5892 section 2.6). */
const NEVER = new Set('\u0640\u07fa\u302e\u302f\u3031\u3032\u3033\u3034\u3035\u303b');
/** Valid only beside others (RFC 5892 appendix A): their rules are checked where a name is read. */
const IN_CONTEXT = /[\u00b7\u0375\u05f3\u05f4\u0660-\u0669\u06f0-\u06f9\u30fb\u200c\u200d]/u;
/** Old letters of Hangul (section 2.9) and blocks of signs (2.4). */
const LEFT_OUT = /[\u1100-\u11ff\ua960-\ua97c\ud7b0-\ud7fb]|[\u20d0-\u20ff]|[\u{1d100}-\u{1d24f}]/u;
const LETTER_OR_DIGIT = /[\p{Ll}\p{Lu}\p{Lo}\p{Nd}\p{Lm}\p{Mn}\p{Mc}]/u;
const IGNORED = /[\p{Default_Ignorable_Code_Point}\p{White_Space}\p{Noncharacter_Code_Point}]/u;

/** Whether a name may have this letter: PVALID, CONTEXTJ or CONTEXTO of RFC 5892 section 3, from the properties that Unicode gives it. */
export function isIdnaLetter(letter: string): boolean {
  if (/^[a-z0-9-]$/.test(letter) || ALWAYS.has(letter) || IN_CONTEXT.test(letter)) return true;
  if (NEVER.has(letter) || /\p{Changes_When_NFKC_Casefolded}/u.test(letter)) return false;
  return LETTER_OR_DIGIT.test(letter) && !IGNORED.test(letter) && !LEFT_OUT.test(letter);
}

/**
 * The first letter of a label that no registry takes any more, though UTS #46 lets it through (`♥`); `null` where all are fine.
 * `unicode` is its U-label form.
 */
export function letterNotInIdna2008(unicode: string): string | null {
  for (const letter of unicode) if (!isIdnaLetter(letter)) return letter;
  return null;
}
