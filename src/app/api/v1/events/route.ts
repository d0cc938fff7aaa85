import { setTimeout as wait } from 'node:timers/promises';
import { isRefusal, refuse } from '@/core/refusal';
import { type Deps, deps } from '@/usecases/deps';
import { eventsAfter } from '@/usecases/programs/events';
import { answer, problem } from '../../../http/problem';
import { streamed } from '../../../http/streamed';

const LOOK_AGAIN_MS = 1000;
/** A line that means nothing, so that nobody between takes the silence for an end. */
const STILL_HERE_MS = 15_000;
/** Each holds a connection of its own. */
const MOST_STREAMS = 100;
const AT_A_TIME = 100;
const MOST_A_PAGE = 1000;

let streams = 0;

/** What happened after a place: as a page, or as it happens (`Accept: text/event-stream`, WHATWG HTML section 9.2). */
export function GET(request: Request): Promise<Response> {
  return answer(async () => {
    const query = new URL(request.url).searchParams;
    const kinds = (query.get('kinds') ?? '').split(',').filter(Boolean);
    const after = request.headers.get('last-event-id') ?? query.get('after');
    if (request.headers.get('accept')?.includes('text/event-stream')) return stream(request, after ?? 'now', kinds);
    const limit = Number(query.get('limit') ?? AT_A_TIME);
    if (!Number.isInteger(limit) || limit < 1 || limit > MOST_A_PAGE)
      return refuse('query-invalid', `limit is 1 to ${MOST_A_PAGE}.`, 'limit');
    const page = await eventsAfter(deps(), after, kinds, limit);
    return isRefusal(page) ? page : Response.json(page, { headers: { 'cache-control': 'no-store' } });
  });
}

async function stream(request: Request, after: string, kinds: readonly string[]) {
  if (streams >= MOST_STREAMS)
    return problem(
      refuse('too-many-streams', 'Too many programs follow along. Ask for pages, or come back later.'),
      503,
    );
  const own = deps();
  const first = await eventsAfter(own, after, kinds, AT_A_TIME);
  if (isRefusal(first)) return first;
  return new Response(streamed(told(own, first, kinds, request.signal)), {
    headers: { 'content-type': 'text/event-stream', 'cache-control': 'no-store', 'x-accel-buffering': 'no' },
  });
}

/** Events as they happen, until whoever reads them goes away. */
async function* told(
  own: Deps,
  first: Exclude<Awaited<ReturnType<typeof eventsAfter>>, { kind: 'refusal' }>,
  kinds: readonly string[],
  signal: AbortSignal,
): AsyncGenerator<Uint8Array> {
  const bytes = (text: string) => new TextEncoder().encode(text);
  streams += 1;
  let page = first;
  let silentSince = performance.now();
  try {
    yield bytes(`retry: 2000\n: after ${page.next}\n\n`);
    while (!signal.aborted) {
      for (const event of page.events)
        yield bytes(`id: ${event.id}\nevent: ${event.kind}\ndata: ${JSON.stringify(event)}\n\n`);
      if (page.events.length > 0) silentSince = performance.now();
      else if (performance.now() - silentSince > STILL_HERE_MS) {
        yield bytes(': still here\n\n');
        silentSince = performance.now();
      }
      if (page.events.length < AT_A_TIME) await wait(LOOK_AGAIN_MS, undefined, { signal }).catch(() => undefined);
      const next = await eventsAfter(own, page.next, kinds, AT_A_TIME);
      // What was forgotten meanwhile ends the stream: the next asking says so.
      if (isRefusal(next)) return;
      page = next;
    }
  } finally {
    streams -= 1;
  }
}
