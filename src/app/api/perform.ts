import { createHash } from 'node:crypto';
import pLimit from 'p-limit';
import { isRefusal, type Refusal, refuse } from '@/core/refusal';
import { membersInOrder } from '@/core/text/membersInOrder';
import { type Deps, deps } from '@/usecases/deps';
import { idsOfNames } from '@/usecases/names/ids';
import { onceForKey } from '@/usecases/programs/keyed';
import { reading } from '@/usecases/reading';
import { textIn } from '../http/params';
import { answer, CHANGED, problem, readJson } from '../http/problem';
import type { AnyOperation, Asked, Method } from './operation';
import { OPERATIONS } from './operations';
import { namesIn, speakingOfNames, withIds } from './requestSchemas';

/** An address of the table that a request's address fits, with what stands in its places. */
interface Found {
  readonly operation: AnyOperation;
  readonly path: Readonly<Record<string, string>>;
}

const partsOf = (path: string) => path.split('/').filter(Boolean);

/** What an address is made of, by method: fixed words before places. */
const TABLE = OPERATIONS.map((operation) => ({ operation, parts: partsOf(operation.path) })).sort(
  (a, b) => placesIn(a.parts) - placesIn(b.parts),
);

function placesIn(parts: readonly string[]): number {
  return parts.filter((part) => part.startsWith('{')).length;
}

function placed(parts: readonly string[], given: readonly string[]): Record<string, string> | null {
  if (parts.length !== given.length) return null;
  const path: Record<string, string> = {};
  for (const [i, part] of parts.entries()) {
    const word = given[i] as string;
    if (part.startsWith('{')) path[part.slice(1, -1)] = textIn(word);
    else if (part !== word) return null;
  }
  return path;
}

function find(method: string, given: readonly string[]): Found | null {
  for (const { operation, parts } of TABLE) {
    const path = operation.method === method ? placed(parts, given) : null;
    if (path) return { operation, path };
  }
  return null;
}

/** Which methods an address takes. */
const methodsAt = (given: readonly string[]): Method[] =>
  TABLE.filter(({ parts }) => placed(parts, given)).map(({ operation }) => operation.method);

/** Of a document: the same as long as it says the same, whenever it was asked for. */
const tagOf = (body: string) => {
  const said = body.replace(/"asOf":"[^"]*"/, '');
  return `"${createHash('sha256').update(said).digest('base64url').slice(0, 22)}"`;
};

const answerOf = (body: string, status: number, more: Record<string, string> = {}) =>
  new Response(body, { status, headers: { 'content-type': 'application/json', 'cache-control': 'no-store', ...more } });

/** What an operation answers, written; or why not. */
async function written({ operation }: Found, asked: Asked): Promise<string | Refusal> {
  const done = await operation.run(asked);
  if (isRefusal(done)) return done;
  const document = operation.answer.write(done) as object;
  return JSON.stringify(operation.rests ? { ...document, restsOn: operation.rests } : document);
}

/** The tag of what stands at an address now; of a command (`/sales/7/steps`), of what it is about (`/sales/7`). */
async function tagAt(own: Deps, given: readonly string[]): Promise<string | Refusal | null> {
  for (let length = given.length; length > 0; length -= 1) {
    const found = find('GET', given.slice(0, length));
    if (!found) continue;
    const body = await written(found, {
      deps: own,
      path: found.path,
      query: new URLSearchParams(),
      body: null,
      key: null,
    });
    return isRefusal(body) ? body : tagOf(body);
  }
  return null;
}

/** Whether what was read is still so (RFC 9110 section 13.1.1). */
async function isStill(own: Deps, given: readonly string[], ifMatch: string): Promise<boolean> {
  const tag = await tagAt(own, given);
  if (isRefusal(tag)) return false;
  return ifMatch.trim() === '*' ? tag !== null : ifMatch.split(',').some((one) => one.trim() === tag);
}

/** A body put together: what was sent, its names as the ledger's numbers, and what the address says. */
async function bodyOf(own: Deps, { operation, path }: Found, request: Request): Promise<unknown | Refusal> {
  const { body: of, bodySchema, fills = {} } = operation;
  if (!of && !bodySchema) return null;
  if (operation.optionalBody && !(await hasBody(request))) return null;
  const sent = await readJson(request);
  if (isRefusal(sent) || !of) return sent;
  if (typeof sent !== 'object' || sent === null || Array.isArray(sent))
    return refuse('request-not-object', 'Send an object with the fields of this request.');
  const ids = await idsOfNames(own, namesIn(of, sent));
  if (isRefusal(ids)) return ids;
  const body = withIds(of, sent, (name) => ids.get(name) ?? 0) as object;
  const said = Object.entries(fills).map(([member, place]) => [member, valueIn(path[place] ?? '')]);
  return { ...body, ...Object.fromEntries(said) };
}

const hasBody = async (request: Request): Promise<boolean> => (await request.clone().text()).trim() !== '';

/** A number of the ledger as one, an id as it stands. */
const valueIn = (word: string): string | number => (/^\d{1,9}$/.test(word) ? Number(word) : word);

async function carriedOut(own: Deps, found: Found, given: readonly string[], request: Request): Promise<Response> {
  const { operation, path } = found;
  const key = request.headers.get('idempotency-key');
  if (operation.spends && key === null)
    return problem(
      refuse(
        'idempotency-key-missing',
        'This spends money: send an Idempotency-Key header, a new one for each request, so that none is carried out twice.',
      ),
    );
  const ifMatch = request.headers.get('if-match');
  const still = ifMatch === null ? null : () => isStill(own, given, ifMatch);
  if (still && !(await still())) return problem(CHANGED);
  const body = await bodyOf(own, found, request);
  if (isRefusal(body)) return problem(body);
  const query = new URL(request.url).searchParams;
  const asked: Asked = { deps: still ? { ...own, still } : own, path, query, body, key };
  const done = await written(found, asked);
  if (isRefusal(done)) return problem(speakingOfNames(done));
  if (operation.after)
    void operation.after(own, asked).catch((error: unknown) => {
      own.log.error({ err: error }, `what follows ${operation.method} ${operation.path} was interrupted`);
    });
  return answerOf(done, operation.status ?? 200);
}

/**
 * A change upon what was read looks at it again while it holds a connection: were all of them held so, none could look. The rest of the
 * pool is left to those.
 */
const conditional = pLimit(3);

/** Answers one request by the table of operations. */
export function perform(request: Request, given: readonly string[]): Promise<Response> {
  return answer(async () => {
    const own = deps();
    // What is asked without its body is asked all the same.
    const found = find(request.method === 'HEAD' ? 'GET' : request.method, given);
    if (!found) {
      const methods = methodsAt(given);
      return methods.length > 0
        ? problem(refuse('method-unknown', `This address takes ${methods.join(', ')}.`), 405)
        : problem(refuse('address-unknown', 'There is no such address. GET /api/v1/openapi.json tells them all.'), 404);
    }
    if (found.operation.method === 'GET') return read(own, found, request);
    const key = request.headers.get('idempotency-key');
    const carryOut = () =>
      request.headers.has('if-match')
        ? conditional(() => carriedOut(own, found, given, request))
        : carriedOut(own, found, given, request);
    if (key === null) return carryOut();
    const { pathname, search } = new URL(request.url);
    const sent = `${request.method} ${pathname}${search} ${inOrder(await request.clone().text())}`;
    const answered = await onceForKey(own, key, sent, async () => {
      const response = await carryOut();
      return { status: response.status, body: await response.text(), isSecret: found.operation.isSecret ?? false };
    });
    if (isRefusal(answered)) return answered;
    const type = answered.status < 400 ? 'application/json' : 'application/problem+json';
    return answerOf(answered.body, answered.status, { 'content-type': type });
  });
}

/** A body whose members stand in an order of their own is the same request. */
function inOrder(body: string): string {
  try {
    return JSON.stringify(membersInOrder(JSON.parse(body)));
  } catch {
    return body;
  }
}

async function read(own: Deps, found: Found, request: Request): Promise<Response> {
  const from = await reading(own);
  const query = new URL(request.url).searchParams;
  const body = await written(found, { deps: from, path: found.path, query, body: null, key: null });
  if (isRefusal(body)) return problem(body);
  const tag = tagOf(body);
  const isKnown = request.headers
    .get('if-none-match')
    ?.split(',')
    .some((one) => one.trim() === tag);
  return isKnown ? new Response(null, { status: 304, headers: { etag: tag } }) : answerOf(body, 200, { etag: tag });
}
