import { ReadableStream } from 'node:stream/web';

/**
 * The body of an answer that goes out piece by piece, as fast as it is read; texts go as UTF-8. Who leaves in the middle ends the making of it:
 * the generator's `finally` runs. (The adapter of Node's own streams throws where nobody catches it when a reader leaves between two pieces.)
 */
export function streamed(pieces: Iterable<Uint8Array | string> | AsyncIterable<Uint8Array | string>): BodyInit {
  return ReadableStream.from(octets(pieces)) as unknown as BodyInit;
}

async function* octets(
  pieces: Iterable<Uint8Array | string> | AsyncIterable<Uint8Array | string>,
): AsyncGenerator<Uint8Array> {
  const encoder = new TextEncoder();
  for await (const piece of pieces) yield typeof piece === 'string' ? encoder.encode(piece) : piece;
}
