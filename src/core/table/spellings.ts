/**
 * Names of domains by place: A-labels in one text, each followed by a line feed, and U-labels where they differ. A name becomes a text of
 * its own where it is looked at.
 */
export class Spellings {
  readonly length: number;
  readonly #text: string;
  readonly #unicode: Readonly<Record<number, string>>;
  /** Where each A-label begins, and one more behind the last. */
  readonly #starts: Int32Array;

  /** `like`: some that may have the same A-labels at the same places; what follows from these alone is shared then. */
  constructor(text: string, length: number, unicode: Readonly<Record<number, string>>, like: Spellings | null = null) {
    this.length = length;
    this.#text = text;
    this.#unicode = unicode;
    this.#starts = like !== null && like.#text === text ? like.#starts : lineStarts(text, length);
  }

  ascii(place: number): string {
    return this.#text.slice(this.#starts[place], (this.#starts[place + 1] as number) - 1);
  }

  unicode(place: number): string {
    return this.#unicode[place] ?? this.ascii(place);
  }

  /** Where an A-label stands first; below nothing where there is none. */
  placeOf(ascii: string): number {
    if (ascii === '' || ascii.includes('\n')) return -1;
    if (this.#text.startsWith(`${ascii}\n`)) return 0;
    const found = this.#text.indexOf(`\n${ascii}\n`);
    return found < 0 ? -1 : this.#lineAt(found + 1);
  }

  /** Visits the places whose A-label holds `text`, in order, while `visit` answers true; none for no text, and for what no label can hold. */
  eachHolding(text: string, visit: (place: number) => boolean): void {
    if (text === '' || text.includes('\n')) return;
    let at = this.#text.indexOf(text);
    let place = 0;
    while (at >= 0) {
      while ((this.#starts[place + 1] as number) <= at) place += 1;
      if (!visit(place)) return;
      at = this.#text.indexOf(text, this.#starts[place + 1]);
    }
  }

  /**
   * Visits the places of names that hold `text`, in small letters, in one of their forms, in order, for as long as `visit` answers true. A
   * function for each and no generator: one letter is held by most of hundreds of thousands.
   */
  eachWith(text: string, visit: (place: number) => boolean): void {
    const own = Object.entries(this.#unicode)
      .filter(([, unicode]) => unicode.includes(text))
      .map(([place]) => Number(place));
    let next = 0;
    let goesOn = true;
    /** Those in their own letters that come before a place. */
    const visitOwn = (before: number) => {
      for (; goesOn && next < own.length && (own[next] as number) < before; next += 1)
        goesOn = visit(own[next] as number);
    };
    this.eachHolding(text, (place) => {
      visitOwn(place);
      if (own[next] === place) next += 1;
      goesOn &&= visit(place);
      return goesOn;
    });
    visitOwn(this.length);
  }

  /** The place in whose line a letter of the text stands. */
  #lineAt(at: number): number {
    let [low, high] = [0, this.length];
    while (low < high) {
      const middle = (low + high) >>> 1;
      if ((this.#starts[middle + 1] as number) <= at) low = middle + 1;
      else high = middle;
    }
    return low;
  }
}

function lineStarts(text: string, lines: number): Int32Array {
  const starts = new Int32Array(lines + 1);
  let at = 0;
  for (let line = 1; line <= lines; line += 1) {
    at = text.indexOf('\n', at) + 1;
    starts[line] = at;
  }
  return starts;
}
