import { execFile } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { promisify } from 'node:util';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { OPENAPI } from '@/app/api/openapi';
import { type Program, startProgram } from './program';

/** Every task of the cook-book in docs/api.md, run as it stands there, in its order. */
const book = readFileSync('docs/api.md', 'utf8');
const [, helper = ''] = /```sh\n(api\(\)[\s\S]*?)```/.exec(book) ?? [];
const TASKS = [...book.matchAll(/^### (\d+)\. (.*)\n[\s\S]*?```sh\n([\s\S]*?)```/gm)].map(
  ([, number, title, script]) => ({ number: Number(number), title: title as string, script: script as string }),
);

/** What each says, line by line. */
const SAYS: readonly RegExp[] = [
  /^(\d{4}-\d\d-\d\dT\d\d:\d\d:\d\dZ \S+ (charge|late-fee|restore|auction|lost)\n){5}$/,
  /"account": "Wrackgate"[\s\S]*"firstFailure": "\S+"[\s\S]*"restsOn"[\s\S]*\n(null|"\S+")\n$/,
  /^1\n1\n$/,
  /^\{"name":"shinglebell.com","years":2,"total":\{"amount":"\d+\.\d\d","currency":"USD"\}\}\n.*\n$/,
  /^sale\n$/,
  /^.*\n1\n$/,
  /^.*\n1\n$/,
  /^\[\d+\]\n$/,
  /^\[\["buyer","500.00","voided"\],\["owner","800.00","live"\]\]\n$/,
  /^history \d+: .*tags.*\n$/,
  /^\{"paths":1000,"carries":[\d.]+\}\n(\S+ -\d+\.\d\d\n){3}$/,
];

let program: Program;
beforeAll(async () => {
  program = await startProgram(true);
}, 120_000);
afterAll(() => program.close());

test('the built program describes itself as its sources do: every member of every request', async () => {
  const { text } = await program.ask('/api/v1/openapi.json');
  expect(JSON.parse(text)).toEqual(JSON.parse(JSON.stringify(OPENAPI)));
});

test('what is asked by HEAD is answered as by GET, without its body', async () => {
  const [asked, whole] = [
    await program.ask('/api/v1/accounts', { method: 'HEAD' }),
    await program.ask('/api/v1/accounts'),
  ];
  expect([asked.status, asked.text, asked.headers.etag]).toEqual([200, '', whole.headers.etag]);
});

test('there are eleven', () =>
  expect(TASKS.map(({ number }) => number)).toEqual(Array.from({ length: 11 }, (_, i) => i + 1)));

describe('each does what it says', () => {
  test.each(TASKS)('$title', async ({ number, script }) => {
    const BASE = `http://127.0.0.1:${program.port}/api/v1`;
    const { stdout } = await promisify(execFile)('bash', ['-euo', 'pipefail', '-c', `${helper}\n${script}`], {
      env: { ...process.env, BASE },
    });
    expect(stdout).toMatch(SAYS[number - 1] as RegExp);
  });
});
