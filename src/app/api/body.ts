import { type Refusal, refuse } from '@/core/refusal';
import { tooLarge } from '@/usecases/limits';

function refuseTooLarge(bytes: number): Refusal {
  return refuse('body-too-large', tooLarge(bytes));
}

/** A body of at most so many bytes, piece by piece. Throws `BodyTooLarge` when it goes on beyond: whoever reads it stops. */
export class BodyTooLarge extends Error {
  constructor(readonly refusal: Refusal) {
    super(refusal.message);
    this.name = 'BodyTooLarge';
  }
}

export async function* limitedBody(request: Request, bytes: number): AsyncGenerator<Uint8Array> {
  let size = 0;
  for await (const piece of (request.body ?? []) as AsyncIterable<Uint8Array>) {
    size += piece.byteLength;
    if (size > bytes) throw new BodyTooLarge(refuseTooLarge(bytes));
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
