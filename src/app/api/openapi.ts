import { AUTO_RENEW_SETTINGS } from '@/core/funding';
import { EVENT_KINDS } from '@/core/journal';
import { SORT_KEYS } from '@/core/ledger';
import { PHASES } from '@/core/lifecycle';
import { grounds } from './documents/answers';
import { namedSchemas } from './kinds';
import type { AnyOperation } from './operation';
import { OPERATIONS } from './operations';
import { requestSchema } from './requestSchemas';
import { object, oneOf, ref, SCHEMAS, type Schema, text, whole, yesNo } from './schemas';

const query = (name: string, schema: Schema, description: string): Schema => ({
  name,
  in: 'query',
  schema,
  description,
});
const VIEW = [
  query('q', text, 'Any part of a name or its notes.'),
  query('account', text, 'Labels or numbers of accounts, separated by commas.'),
  query('ending', text, 'Endings, separated by commas.'),
  query('phase', text, `Phases, separated by commas: ${PHASES.join(', ')}.`),
  query('auto', text, `Auto-renew settings, separated by commas: ${AUTO_RENEW_SETTINGS.join(', ')}.`),
  query('purpose', text, 'Purposes, separated by commas: use, hold, sale, drop.'),
  query('tag', text, 'Tags, separated by commas.'),
  query('within', whole, 'Days within which the next deadline must lie.'),
  query('costFrom', whole, 'Least cost of keeping the name now, minor units of the home currency.'),
  query('costTo', whole, 'Greatest cost of keeping the name now, minor units of the home currency.'),
  query('askingFrom', whole, 'Least asking price, minor units of the home currency.'),
  query('askingTo', whole, 'Greatest asking price, minor units of the home currency.'),
  query('forSale', oneOf(['yes', 'no']), 'For sale or not.'),
  query('end', oneOf(['unknown']), 'Only names of which nobody has said when their term ends.'),
  query('neverLost', oneOf(['yes', 'no']), 'Marked never to be lost or not.'),
  query('sort', oneOf(SORT_KEYS.flatMap((key) => [key, `-${key}`])), 'The order; a hyphen turns it round.'),
  query('asOf', text, 'A day or instant up to two years ahead: the ledger as it will be then, if nothing is done.'),
];

const binary: Schema = { type: 'string', contentMediaType: 'application/octet-stream' };
const json = (schema: Schema) => ({ 'application/json': { schema } });
const answer = (description: string, schema: Schema) => ({ description, content: json(schema) });
const refused = {
  description: 'Refused: why, and what to do (RFC 9457).',
  content: { 'application/problem+json': { schema: ref('Problem') } },
};
const operation = (summary: string, success: Readonly<Record<string, unknown>>, more: object = {}) => ({
  summary,
  ...more,
  responses: { ...success, default: refused },
});

const header = (name: string, required: boolean, description: string): Schema => ({
  name,
  in: 'header',
  required,
  schema: text,
  description,
});
const KEY_WORDS =
  'Any text of up to 200 signs: the same request with the same key is carried out once and answered the same.';

/** What every answer with money says besides. */
const RESTING: Schema = { type: 'object', properties: { restsOn: grounds.schema }, required: ['restsOn'] };

/** An operation of the table as the description has it. */
function described({ method, path, summary, query: asked = {}, body, bodySchema, ...more }: AnyOperation): Schema {
  const { fills = {}, spends = false, optionalBody = false, status = 200, answer: kind, rests } = more;
  const parameters = [
    ...[...path.matchAll(/\{(\w+)\}/g)].map(([, name]) => ({ name, in: 'path', required: true, schema: text })),
    ...Object.entries(asked).map(([name, { schema, description, required = false }]) => ({
      name,
      in: 'query',
      required,
      schema,
      description,
    })),
    ...(method === 'GET'
      ? [header('If-None-Match', false, 'The ETag of an earlier answer: 304 while nothing has changed.')]
      : [
          header('If-Match', false, 'The ETag of what was read: 412 where it has changed meanwhile.'),
          header('Idempotency-Key', spends, KEY_WORDS),
        ]),
  ];
  const schema = body ? requestSchema(body, Object.keys(fills)) : bodySchema;
  return operation(
    summary,
    { [status]: answer('Done.', rests ? { allOf: [kind.schema, RESTING] } : kind.schema) },
    { parameters, ...(schema ? { requestBody: { required: !optionalBody, content: json(schema) } } : {}) },
  );
}

/** The paths of the table, each with its methods. */
function tablePaths(): Record<string, Record<string, Schema>> {
  const paths: Record<string, Record<string, Schema>> = {};
  for (const one of OPERATIONS) paths[one.path] = { ...paths[one.path], [one.method.toLowerCase()]: described(one) };
  return paths;
}

/** The OpenAPI 3.1 description of `/api/v1`. A test holds it against the routes and their answers. */
export const OPENAPI = {
  openapi: '3.1.0',
  info: {
    title: 'Name Ledger',
    version: '1',
    description:
      'Names, their deadlines and what they will cost. Instants are RFC 3339 UTC. Serves its own machine only.',
  },
  servers: [{ url: '/api/v1' }],
  paths: {
    ...tablePaths(),
    '/names': {
      get: operation(
        'Names by filter and order, a page at a time',
        {
          200: {
            description: 'A page of names, or the whole view as CSV.',
            content: { ...json(ref('NamePage')), 'text/csv': { schema: text } },
          },
        },
        {
          parameters: [
            ...VIEW,
            query('limit', { type: 'integer', minimum: 1, maximum: 1000, default: 100 }, 'Names a page.'),
            query('cursor', text, 'What the page before gave as next.'),
            query('format', oneOf(['json', 'csv']), 'csv gives the whole view.'),
          ],
        },
      ),
    },
    '/names/export': {
      get: operation(
        'The view on screen as a file',
        {
          200: {
            description: 'CSV, JSON or a workbook.',
            content: {
              'text/csv': { schema: text },
              'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet': { schema: binary },
              ...json({ type: 'object' }),
            },
          },
        },
        {
          parameters: [
            ...VIEW,
            query('format', oneOf(['csv', 'json', 'xlsx']), 'csv unless another is asked for.'),
            query('columns', text, 'Columns of the table, separated by commas.'),
          ],
        },
      ),
    },
    '/names/import': {
      post: operation(
        'Bring in names from CSV, plain text or a workbook',
        { 200: answer('What came of it.', ref('ImportResult')) },
        {
          parameters: [
            query('dryRun', yesNo, 'Only tell what would come of it.'),
            query('account', text, 'Account of rows that name none.'),
            query(
              'dateOrder',
              oneOf(['day', 'month', 'year']),
              'What stands first in dates that can be read in more ways than one.',
            ),
            query(
              'decimalMark',
              oneOf(['point', 'comma']),
              'What stands before the cents in amounts that can be read two ways.',
            ),
            query('takeMoves', yesNo, 'Names that the ledger has in another account have moved.'),
            query('fullList', yesNo, 'The list holds every name of that account.'),
            query('allowPrivateEndings', yesNo, 'Take names under private endings.'),
          ],
          requestBody: {
            required: true,
            content: {
              'text/csv': { schema: text },
              'text/tab-separated-values': { schema: text },
              'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet': { schema: binary },
            },
          },
        },
      ),
    },
    '/calendar.ics': {
      get: operation(
        'Deadlines of the next 400 days as iCalendar (RFC 5545)',
        { 200: { description: 'The calendar.', content: { 'text/calendar': { schema: text } } } },
        { parameters: [query('token', text, 'Of the address that Setup → Mail has made.')] },
      ),
    },
    '/backup': {
      get: operation('The whole ledger as one JSON file', { 200: answer('The backup.', ref('Backup')) }),
      post: operation(
        'Restore a backup into an empty ledger',
        { 201: answer('How many names it held.', object({ names: whole })) },
        { requestBody: { required: true, content: json(ref('Backup')) } },
      ),
    },
    '/audit/export': {
      get: operation('The whole audit as lines of JSON, oldest first: bin/verify-audit verifies it', {
        200: { description: 'A line for each.', content: { 'application/x-ndjson': { schema: text } } },
      }),
    },
    '/events': {
      get: operation(
        'What happened after a place, in order: a page, or as it happens (text/event-stream)',
        {
          200: {
            description: 'Events, and where to go on.',
            content: { ...json(ref('EventPage')), 'text/event-stream': { schema: text } },
          },
        },
        {
          parameters: [
            query(
              'after',
              text,
              'What an earlier answer gave as next; now for what comes; left out for all that is kept.',
            ),
            query('kinds', text, `Kinds, separated by commas: ${EVENT_KINDS.join(', ')}.`),
            query('limit', { type: 'integer', minimum: 1, maximum: 1000, default: 100 }, 'Events a page.'),
            header('Last-Event-ID', false, 'The id of the last event that was read, in place of after.'),
          ],
        },
      ),
    },
    '/health': {
      get: operation('How each part of the program is', {
        200: answer('Every part, and jobs that failed.', ref('Health')),
        503: answer('The same, while the database does not answer.', ref('Health')),
      }),
    },
    '/openapi.json': { get: operation('This description', { 200: answer('OpenAPI 3.1.', { type: 'object' }) }) },
  },
  // As long as nobody signs in, no token is asked for.
  security: [{}, { token: [] }],
  components: {
    securitySchemes: { token: { type: 'http', scheme: 'bearer', description: 'Made under Setup → People.' } },
    schemas: { ...SCHEMAS, ...namedSchemas() },
  },
};
