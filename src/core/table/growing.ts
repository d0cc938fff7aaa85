/** Kinds of columns that are put together. */
type Kind = Int32ArrayConstructor | Float64ArrayConstructor | Uint16ArrayConstructor | Uint8ArrayConstructor;

const FIRST_ROOM = 1024;

/** A column that is put together value by value, of which nobody knows yet how long it becomes. */
export class Growing<K extends Kind> {
  #room: InstanceType<K>;
  length = 0;

  constructor(kind: K) {
    this.#room = new kind(FIRST_ROOM) as InstanceType<K>;
  }

  push(value: number): void {
    if (this.length === this.#room.length) {
      const room = new (this.#room.constructor as K)(2 * this.length) as InstanceType<K>;
      room.set(this.#room);
      this.#room = room;
    }
    this.#room[this.length] = value;
    this.length += 1;
  }

  /** The column as it has become, in memory of its own. */
  done(): InstanceType<K> {
    return this.#room.slice(0, this.length) as InstanceType<K>;
  }
}

/** What many rows have alike, each once, with the number by which a row refers to it: by a key that is the same for what is alike. */
export class Dictionary<V> {
  readonly values: V[] = [];
  readonly #codes = new Map<string, number>();

  /** `make` is asked once for each key. */
  code(key: string, make: () => V): number {
    let code = this.#codes.get(key);
    if (code === undefined) {
      code = this.values.push(make()) - 1;
      this.#codes.set(key, code);
    }
    return code;
  }
}
