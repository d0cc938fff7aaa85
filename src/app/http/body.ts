import { type Refusal, refuse } from '@/core/refusal';
import { tooLarge } from '@/usecases/limits';

/** A body went on beyond what its route takes. */
export class BodyTooLarge extends Error {
  readonly refusal: Refusal;

  constructor(bytes: number) {
    super(tooLarge(bytes));
    this.name = 'BodyTooLarge';
    this.refusal = refuse('body-too-large', this.message);
  }
}

/** A body of at most so many bytes, piece by piece. Throws `BodyTooLarge` when it goes on beyond: whoever reads it stops. */
export async function* limitedBody(request: Request, bytes: number): AsyncGenerator<Uint8Array> {
  let size = 0;
  for await (const piece of (request.body ?? []) as AsyncIterable<Uint8Array>) {
    size += piece.byteLength;
    if (size > bytes) throw new BodyTooLarge(bytes);
    yield piece;
  }
}

/** The whole body, or a refusal when it is longer than `bytes`. Nothing is cut: it is all there, or refused. */
export async function readBody(request: Request, bytes: number): Promise<Uint8Array | Refusal> {
  const pieces: Uint8Array[] = [];
  try {
    for await (const piece of limitedBody(request, bytes)) pieces.push(piece);
  } catch (error) {
    if (error instanceof BodyTooLarge) return error.refusal;
    throw error;
  }
  return new Uint8Array(Buffer.concat(pieces));
}
