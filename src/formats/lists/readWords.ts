/** The words of a typed list: apart by commas, semicolons, spaces or lines. No word stands twice. */
export function readWords(text: string): string[] {
  return distinct(text.split(/[\s,;]+/));
}

/** The phrases of a typed list: apart by commas, semicolons or lines, so that each may be of several words. None stands twice. */
export function readPhrases(text: string): string[] {
  return distinct(text.split(/[,;\n]+/));
}

/** The whole numbers of a typed list, as they were typed where one is none: what takes them refuses it there. */
export function readWholeNumbers(text: string): (number | string)[] {
  return readWords(text).map((word) => (/^\d{1,9}$/.test(word) ? Number(word) : word));
}

function distinct(parts: readonly string[]): string[] {
  return [...new Set(parts.map((part) => part.trim()).filter((part) => part !== ''))];
}
