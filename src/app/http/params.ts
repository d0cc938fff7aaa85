/** What stands in the address of a page or route, as somebody may have typed it: a value that can be, or none. */

const UUID = /^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/;

/** The number of a row; 0, which no row has, for anything else. */
export function rowIdIn(text: string): number {
  return /^[1-9]\d{0,8}$/.test(text) ? Number(text) : 0;
}

/** The id of a run or an import; `null` for anything else. */
export function uuidIn(text: string): string | null {
  return UUID.test(text) ? text : null;
}

/** A name or a word, decoded; as it stands where it cannot be (RFC 3986 section 2.1), for a name it is none then. */
export function textIn(text: string): string {
  try {
    return decodeURIComponent(text);
  } catch {
    return text;
  }
}
