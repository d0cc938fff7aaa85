import { isRefusal } from '@/core/refusal';
import { deps } from '@/usecases/deps';
import { beginImport, LARGEST_FILE } from '@/usecases/imports/readImport';

/** Takes in a list as the body of the request. Answers `{ id }`, or why it is refused. */
export async function POST(request: Request): Promise<Response> {
  const query = new URL(request.url).searchParams;
  const length = Number(request.headers.get('content-length') ?? 0);
  const content =
    length > LARGEST_FILE ? new Uint8Array(LARGEST_FILE + 1) : new Uint8Array(await request.arrayBuffer());
  const begun = await beginImport(deps(), {
    content,
    source: query.get('source') ?? 'pasted',
    accountId: Number(query.get('accountId')) || null,
    accountLabel: query.get('accountLabel'),
  });
  return isRefusal(begun) ? Response.json(begun, { status: 422 }) : Response.json({ id: begun.id });
}
