import { join } from 'node:path';
import { Ajv2020 } from 'ajv/dist/2020';
import addFormats from 'ajv-formats';
import createClient from 'openapi-fetch';
import { expect } from 'vitest';
import { OPENAPI } from '@/app/api/openapi';
import { OPERATIONS } from '@/app/api/operations';
import type { paths } from '../generated/api';

/** Where the routes of the interface for other programs stand. */
export const ROUTES = 'src/app/api/v1';

const ajv = new Ajv2020({ strict: false, allErrors: true });
addFormats(ajv as never);
ajv.addSchema({ $id: 'openapi', ...OPENAPI });

/** The described address that a path fits, fixed words before places. */
function describedAt(method: string, pathname: string): string | null {
  const fits = Object.entries(OPENAPI.paths as never as Record<string, Record<string, unknown>>).filter(
    ([path, methods]) =>
      methods[method.toLowerCase()] && new RegExp(`^${path.replace(/\{\w+\}/g, '[^/]+')}$`).test(pathname),
  );
  const [best] = fits.sort(([a], [b]) => a.split('{').length - b.split('{').length);
  return best?.[0] ?? null;
}

type Handler = (request: Request, context: unknown) => Promise<Response>;

/** Hands a request to its route as the application would. */
export async function handle(request: Request): Promise<Response> {
  const pathname = new URL(request.url).pathname.replace(/^\/api\/v1/, '');
  const described = describedAt(request.method, pathname);
  const isOfTable = described === null || OPERATIONS.some(({ path: of }) => of === described);
  const file = isOfTable ? '[...path]' : described.replace('{name}', '[name]');
  const module = (await import(/* @vite-ignore */ join(process.cwd(), ROUTES, file, 'route.ts'))) as Record<
    string,
    Handler
  >;
  const parts = pathname.split('/').filter(Boolean);
  return (module[request.method] as Handler)(request, {
    params: Promise.resolve({ name: decodeURIComponent(parts[1] ?? ''), path: parts }),
  });
}

/** A client whose types were made from the description. */
export const client = createClient<paths>({
  baseUrl: 'http://127.0.0.1/api/v1',
  fetch: (request: Request) => handle(request),
});

/** Calls a route as the application would and holds the answer against the description. */
export async function call(
  method: 'GET' | 'POST' | 'PATCH' | 'PUT' | 'DELETE',
  path: string,
  body?: unknown,
  headers: Record<string, string> = {},
) {
  const [pathname = '', search = ''] = path.split('?');
  const described = describedAt(method, pathname);
  const response = await handle(
    new Request(`http://127.0.0.1/api/v1${pathname}?${search}`, {
      method,
      headers,
      ...(body === undefined ? {} : { body: typeof body === 'string' ? body : JSON.stringify(body) }),
    }),
  );
  const type = response.headers.get('content-type') ?? '';
  const text = await response.text();
  const told = { status: response.status, type, text, headers: response.headers };
  if (!type.includes('json')) return { ...told, json: null as never };
  const json = JSON.parse(text);
  if (described === null) return { ...told, json };
  const responses = (
    OPENAPI.paths as never as Record<
      string,
      Record<string, { responses: Record<string, { content: Record<string, object> }> }>
    >
  )[described]?.[method.toLowerCase()]?.responses;
  const key = responses?.[response.status] ? String(response.status) : 'default';
  const media = key === 'default' ? 'application/problem+json' : 'application/json';
  const pointer = `openapi#/paths/${described.replaceAll('/', '~1').replaceAll('{', '%7B').replaceAll('}', '%7D')}/${method.toLowerCase()}/responses/${key}/content/${media.replace('/', '~1')}/schema`;
  const valid = ajv.validate({ $ref: pointer }, json);
  expect(valid ? [] : ajv.errors, `${method} ${path} against its description`).toEqual([]);
  return { ...told, json };
}
