import { isRefusal, type Refusal } from '@/core/refusal';
import { deps } from '@/usecases/deps';

const STATUS: Readonly<Record<string, number>> = {
  'name-not-in-ledger': 404,
  'account-unknown': 404,
  'renewal-unknown': 404,
  'import-unknown': 404,
  'ledger-not-empty': 409,
  'renewal-settled': 409,
  'file-too-large': 413,
  'backup-not-read': 422,
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
  };
  return new Response(JSON.stringify(document), {
    status,
    headers: { 'content-type': 'application/problem+json' },
  });
}

/** Runs a route: a refusal becomes a problem document, anything else the route's own answer; a bug is logged and told as 500. */
export async function answer(work: () => Promise<Response | Refusal>): Promise<Response> {
  try {
    const result = await work();
    return isRefusal(result) ? problem(result) : result;
  } catch (error) {
    deps().log.error({ err: error }, 'a request failed');
    return problem(
      {
        kind: 'refusal',
        code: 'internal',
        message: 'Something went wrong here, and nothing was written. The log has the cause.',
      },
      500,
    );
  }
}

/** The JSON body of a request, or a refusal. */
export async function readJson(request: Request): Promise<unknown> {
  try {
    return await request.json();
  } catch {
    return { kind: 'refusal', code: 'request-not-json', message: 'The body is not JSON.' } satisfies Refusal;
  }
}
