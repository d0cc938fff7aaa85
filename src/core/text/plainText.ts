import { type Refusal, refuse } from '../refusal';

/** Letters that turn the direction of what follows: with them a text can be made to read as another (Unicode UAX #9, UTR #36). */
const TURNS_DIRECTION = /[\u202a-\u202e\u2066-\u2069]/;
/** Control characters other than tab and line breaks. NUL is one of them: PostgreSQL takes no text with it. */
// biome-ignore lint/suspicious/noControlCharactersInRegex: these are what is looked for.
const CONTROL = /[\u0000-\u0008\u000b\u000c\u000e-\u001f\u007f]/;
const LINE_BREAK = /[\n\r\t\u0085\u2028\u2029]/;

/** True for a text without line breaks and tabs: what a label or a tag must be, since it stands in lists and headings. */
export function isOneLine(text: string): boolean {
  return !LINE_BREAK.test(text);
}

/** Why a text that came from outside is not kept as it is; `null` when it is. `field` says where it was written. */
export function refuseText(text: string, field?: string): Refusal | null {
  if (!text.isWellFormed() || CONTROL.test(text))
    return refuse('text-unreadable', 'This text has control characters or broken letters in it. Type it anew.', field);
  if (TURNS_DIRECTION.test(text))
    return refuse(
      'text-turns-direction',
      'This text has invisible letters in it that turn its direction, so that it reads as another. Type it anew.',
      field,
    );
  return null;
}
