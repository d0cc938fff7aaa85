import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { Webhook } from 'standardwebhooks';
import { afterAll, beforeAll, expect, test } from 'vitest';
import { editNames } from '@/usecases/names/edit';
import { tellWebhooks } from '@/usecases/programs/deliver';
import { startApp, type TestApp } from './app';

let app: TestApp;
let server: Server;
const taken: { body: string; headers: Record<string, string> }[] = [];
let answers = 204;
beforeAll(async () => {
  app = await startApp({ demo: true });
  server = createServer((request, response) => {
    let body = '';
    request.on('data', (piece) => {
      body += piece;
    });
    request.on('end', () => {
      if (answers === 204) taken.push({ body, headers: request.headers as Record<string, string> });
      response.writeHead(answers).end();
    });
  });
  await new Promise<void>((ready) => server.listen(0, '127.0.0.1', ready));
});
afterAll(async () => {
  await app.close();
  await new Promise((closed) => server.close(closed));
});
const tag = async (word: string) => {
  const { rows } = await app.ledger.database.query<{ id: number }>('select id from names order by id limit 1');
  await editNames(app.ledger, { nameIds: [rows[0]?.id], edit: { addTags: [word] } });
};

test('a program is told: its secret is shown once and signs what it gets; paused, it gets what it missed later', async () => {
  const { visitor, ledger } = app;
  await visitor.go('/setup/programs');
  await visitor.see('No program is told of what happens.');
  await visitor.fill('What it is for', 'Bookkeeping');
  await visitor.fill('Address', 'http://10.0.0.7/hook');
  await visitor.press('Tell it from now on');
  await visitor.see('Only https keeps others from reading it on the way.');
  await visitor.fill('Address', `http://127.0.0.1:${(server.address() as AddressInfo).port}/hook`);
  await visitor.press('Tell it from now on');
  await visitor.see('copy it now, it is not shown again');
  const secret = /whsec_\S+/.exec(await visitor.text('main'))?.[0] ?? '';
  expect(secret).toMatch(/^whsec_[A-Za-z0-9+/=]{32,}$/);
  expect(await visitor.axe()).toEqual([]);
  await tag('told');
  await tellWebhooks(ledger);
  expect(taken).toHaveLength(1);
  // Source: the reference library of the Standard Webhooks specification.
  expect(new Webhook(secret).verify(taken[0]?.body ?? '', taken[0]?.headers ?? {})).toMatchObject({ kind: 'history' });
  await visitor.go('/setup/programs');
  await visitor.see('One program is told of what happens.');
  expect(await visitor.text('main')).not.toContain('whsec_');
  await visitor.press('Pause');
  await visitor.see('What happens is kept for ninety days.');
  await tag('meanwhile');
  await tellWebhooks(ledger);
  expect(taken).toHaveLength(1);
  await visitor.press('Go on');
  await visitor.see('Bookkeeping is told from where it stood.');
  await tellWebhooks(ledger);
  expect(taken).toHaveLength(2);
});

test('one that takes nothing is said to, with what happens next; a new secret; removed', async () => {
  const { visitor, ledger } = app;
  answers = 500;
  await tag('refused');
  await tellWebhooks(ledger);
  await visitor.go('/setup/programs');
  await visitor.see('One program is told of what happens; one takes nothing now.');
  await visitor.see('Sent once, not taken: it answered 500.');
  await visitor.press('New secret');
  await visitor.see('The old secret signs nothing any more.');
  await visitor.see('copy it now');
  await visitor.press('Remove');
  await visitor.see('No program is told of what happens.');
});
