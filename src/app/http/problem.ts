import { isRefusal, type Refusal, refuse } from '@/core/refusal';
import { ChangedMeanwhile } from '@/usecases/changing';
import { deps } from '@/usecases/deps';
import { requestId } from '@/usecases/log';
import { streamed } from './streamed';

const STATUS: Readonly<Record<string, number>> = {
  'name-not-in-ledger': 404,
  'account-unknown': 404,
  'renewal-unknown': 404,
  'import-unknown': 404,
  'ledger-not-empty': 409,
  'renewal-settled': 409,
  'file-too-large': 413,
  'body-too-large': 413,
  'feed-token-invalid': 403,
  'role-lacking': 403,
  'scope-lacking': 403,
  'sign-in-needed': 401,
  'attempts-too-many': 429,
  'request-too-deep': 400,
  'text-unreadable': 400,
  'backup-not-read': 422,
  'not-found': 404,
  'request-under-way': 409,
  'changed-meanwhile': 412,
  'events-forgotten': 410,
  'cursor-invalid': 400,
  'request-not-object': 400,
  'request-not-json': 400,
  'query-invalid': 400,
};

/** A refusal as a problem document (RFC 9457). Its `type` is the stable code. */
export function problem(refusal: Refusal, status = STATUS[refusal.code] ?? 422): Response {
  const document = {
    type: `urn:name-ledger:problem:${refusal.code}`,
    title: refusal.code.replaceAll('-', ' '),
    status,
    detail: refusal.message,
    code: refusal.code,
    ...(refusal.field ? { field: refusal.field } : {}),
    ...(refusal.fields ? { fields: refusal.fields } : {}),
  };
  return new Response(JSON.stringify(document), {
    status,
    headers: { 'content-type': 'application/problem+json' },
  });
}

/** What a program has read is no longer so (RFC 9110 section 13.1.1). */
export const CHANGED = refuse(
  'changed-meanwhile',
  'It has changed since you read it. Read it again, and send the change with the new ETag.',
);

/** A value that PostgreSQL takes for none of its type: what asks with it is at fault, not the program. */
function refusedByDatabase(error: unknown): Refusal | null {
  const { code = '' } = (error ?? {}) as { code?: string };
  return /^(22P02|22003|22021|22P05|22008|54001)$/.test(code)
    ? refuse(
        'value-unreadable',
        'A value in this request is not one that can be. Look at its numbers, ids and letters.',
      )
    : null;
}

/** Runs a route: a refusal becomes a problem document, anything else the route's own answer; a bug is logged and told as 500. */
export async function answer(work: () => Promise<Response | Refusal>): Promise<Response> {
  try {
    const result = await work();
    return isRefusal(result) ? problem(result) : result;
  } catch (error) {
    if (error instanceof ChangedMeanwhile) return problem(CHANGED);
    const refused = refusedByDatabase(error);
    if (refused) return problem(refused, 400);
    deps().log.error({ err: error }, 'a request failed');
    return problem(
      refuse(
        'internal',
        `Something went wrong here, and nothing was written. The log has the cause${requestId() ? `, under request ${requestId()}` : ''}.`,
      ),
      500,
    );
  }
}

/** A body that was written elsewhere already, or the refusal in its place. */
export function written(
  body: Uint8Array | Refusal,
  type: string,
  disposition: string | null = null,
): Response | Refusal {
  if (isRefusal(body)) return body;
  const headers = { 'content-type': type, ...(disposition ? { 'content-disposition': disposition } : {}) };
  const whole = body as Uint8Array<ArrayBuffer>;
  // A long one goes out piece by piece, as fast as it is read: no piece holds up the others.
  return new Response(body.byteLength > PIECE_BYTES ? streamed(pieces(whole)) : whole, { headers });
}

const PIECE_BYTES = 256 * 1024;

function* pieces(body: Uint8Array): Generator<Uint8Array> {
  for (let start = 0; start < body.byteLength; start += PIECE_BYTES) yield body.subarray(start, start + PIECE_BYTES);
}

/** The JSON body of a request, or a refusal. */
export async function readJson(request: Request): Promise<unknown> {
  try {
    return await request.json();
  } catch {
    return { kind: 'refusal', code: 'request-not-json', message: 'The body is not JSON.' } satisfies Refusal;
  }
}
