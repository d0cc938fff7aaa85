/** One piece of a pasted text with the line (from 1) it stood on. */
export interface PastedName {
  readonly line: number;
  readonly text: string;
}

/** Splits a pasted text into pieces that should each be a name: by white space, commas, semicolons, pipes and line breaks. */
export function splitNames(text: string): PastedName[] {
  return text.split(/\r\n|[\n\r\u2028\u2029]/u).flatMap((line, index) =>
    line
      .split(/[\s,;|、，；\u00a0\u200b\ufeff]+/u)
      .filter((piece) => piece !== '')
      .map((piece) => ({ line: index + 1, text: piece })),
  );
}
