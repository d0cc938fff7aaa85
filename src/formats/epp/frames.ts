/** RFC 5734 section 4: four octets of length, which count themselves, then the XML. */
export function frame(xml: string): Buffer {
  const body = Buffer.from(xml, 'utf8');
  const head = Buffer.alloc(4);
  head.writeUInt32BE(body.length + 4);
  return Buffer.concat([head, body]);
}

const LONGEST = 1024 * 1024;

/** Puts pieces of a stream together into whole frames. Throws when a length is none. */
export function frameReader(): (piece: Buffer) => string[] {
  let held = Buffer.alloc(0);
  return (piece) => {
    held = Buffer.concat([held, piece]);
    const frames: string[] = [];
    while (held.length >= 4) {
      const length = held.readUInt32BE(0);
      if (length < 5 || length > LONGEST) throw new Error(`a frame of ${length} octets`);
      if (held.length < length) break;
      frames.push(held.subarray(4, length).toString('utf8'));
      held = held.subarray(length);
    }
    return frames;
  };
}
