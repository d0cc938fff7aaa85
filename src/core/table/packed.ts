/** Kinds of arrays that travel, by the letter that the head calls them. */
const ARRAYS = { b: Uint8Array, h: Uint16Array, i: Int32Array, d: Float64Array } as const;
type Column = InstanceType<(typeof ARRAYS)[keyof typeof ARRAYS]>;

/** So many bytes the arrays begin at a multiple of: every kind of them can be looked at where it lies. */
const ALIGNMENT = 8;
const aligned = (bytes: number) => Math.ceil(bytes / ALIGNMENT) * ALIGNMENT;

/** Where an array lies: its kind, the first byte behind the head, and how many items it has. */
type Placed = readonly [kind: keyof typeof ARRAYS, at: number, items: number];

/** Arrays stand among the fields of an object so many levels deep at the most: below that nothing is looked for. */
const LEVELS = 3;

/** A copy of a plain object in which some fields are replaced. */
function replaced(value: unknown, level: number, replace: (field: unknown) => unknown): unknown {
  const other = replace(value);
  if (other !== value || level === LEVELS || value === null || typeof value !== 'object' || Array.isArray(value))
    return other;
  return Object.fromEntries(Object.entries(value).map(([key, field]) => [key, replaced(field, level + 1, replace)]));
}

/**
 * A plain value with typed arrays in it as one body of bytes: four bytes with the length of the head, the head as JSON in which each
 * array is replaced by where it lies, then the arrays one after the other, each at a multiple of eight. Numbers are little-endian.
 */
export function packed(value: unknown): Uint8Array<ArrayBuffer> {
  const arrays: Column[] = [];
  let at = 0;
  const head = replaced(value, 0, (field) => {
    const kind = kindOf(field);
    if (kind === null) return field;
    const array = field as Column;
    arrays.push(array);
    const placed: Placed = [kind, at, array.length];
    at = aligned(at + array.byteLength);
    return { array: placed };
  });
  const headBytes = new TextEncoder().encode(JSON.stringify(head));
  const start = aligned(4 + headBytes.length);
  const bytes = new Uint8Array(start + at);
  new DataView(bytes.buffer).setUint32(0, headBytes.length, true);
  bytes.set(headBytes, 4);
  let from = start;
  for (const array of arrays) {
    bytes.set(new Uint8Array(array.buffer, array.byteOffset, array.byteLength), from);
    from = aligned(from + array.byteLength);
  }
  return bytes;
}

function kindOf(field: unknown): keyof typeof ARRAYS | null {
  for (const [kind, type] of Object.entries(ARRAYS)) if (field instanceof type) return kind as keyof typeof ARRAYS;
  return null;
}

/** Reads what `packed` wrote; the arrays are looked at where they lie. Throws on a body that was cut off. */
export function unpacked<T>(body: ArrayBuffer): T {
  const headLength = new DataView(body).getUint32(0, true);
  const start = aligned(4 + headLength);
  const head = JSON.parse(new TextDecoder().decode(new Uint8Array(body, 4, headLength))) as unknown;
  return replaced(head, 0, (field) => {
    const placed = (field as { array?: Placed } | null)?.array;
    if (!Array.isArray(placed)) return field;
    const [kind, at, items] = placed;
    return new ARRAYS[kind](body, start + at, items);
  }) as T;
}
