import { spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, expect, test } from 'vitest';
import { auditable, auditExport, verifyAudit } from '@/usecases/people/audit';
import { ROOT } from '../../bin/support/programs';
import { emptyLedger } from './ledger';
import { type Inside, letIn, PHRASE, type TimedLedger, timed } from './people';

let ledger: TimedLedger;
let owner: Inside;
beforeAll(async () => {
  ledger = timed(await emptyLedger());
  owner = await letIn(ledger, 'Ilsa Tarn', 'owner');
  await letIn(ledger, 'Odo Quill', 'trader', owner.deps);
});
afterAll(() => ledger.close());

test('tells who did what, holds no secret, and follows line by line', async () => {
  expect(await verifyAudit(ledger)).toMatchObject({ brokenAt: null });
  const { rows } = await ledger.database.query<{ said: string }>(
    "select string_agg(who || action || detail::text, '\n') as said from audit",
  );
  const said = rows[0]?.said ?? '';
  expect(said).toContain('signed in');
  for (const secret of [PHRASE, owner.secret, owner.token, ...owner.recoveryCodes]) expect(said).not.toContain(secret);
});

test('no line is changed or taken away', async () => {
  const change = (sql: string) => ledger.database.query(sql);
  await expect(change("update audit set who = 'nobody' where id = 2")).rejects.toThrow('never changed');
  await expect(change('delete from audit where id = 2')).rejects.toThrow('never changed');
  await expect(change('truncate audit')).rejects.toThrow('never changed');
});

test.each([
  ["set who = 'Somebody Else'", 3],
  ["set detail = '{}'", 3],
  ["set at = at + interval '1 second'", 3],
])('a line that was changed behind the triggers (%s) is found', async (change, line) => {
  await ledger.database.query('alter table audit disable trigger audit_stays');
  const { rows } = await ledger.database.query('select * from audit where id = $1', [line]);
  await ledger.database.query(`update audit ${change} where id = ${line}`);
  expect(await verifyAudit(ledger)).toMatchObject({ brokenAt: line });
  const before = rows[0] as { who: string; detail: unknown; at: number };
  await ledger.database.query('update audit set who = $2, detail = $3, at = $4 where id = $1', [
    line,
    before.who,
    JSON.stringify(before.detail),
    new Date(before.at),
  ]);
  expect(await verifyAudit(ledger)).toMatchObject({ brokenAt: null });
  await ledger.database.query('alter table audit enable trigger audit_stays');
});

test('a line that was taken out is found, and one cut off at the end by the hash that was noted', async () => {
  const { head, lines } = await verifyAudit(ledger);
  await ledger.database.query('alter table audit disable trigger audit_stays');
  const last = await ledger.database.query('delete from audit where id = $1 returning *', [lines]);
  expect((await verifyAudit(ledger)).head).not.toBe(head);
  const middle = await ledger.database.query('delete from audit where id = 2 returning *');
  expect(await verifyAudit(ledger)).toMatchObject({ brokenAt: 2 });
  for (const row of [...middle.rows, ...last.rows] as Record<string, unknown>[])
    await ledger.database.query(
      'insert into audit (id, at, who, action, detail, before_hash, hash) values ($1, $2, $3, $4, $5, $6, $7)',
      [row.id, new Date(row.at as number), row.who, row.action, JSON.stringify(row.detail), row.before_hash, row.hash],
    );
  await ledger.database.query('alter table audit enable trigger audit_stays');
  expect(await verifyAudit(ledger)).toMatchObject({ brokenAt: null, head });
});

test('what a command was asked with is told without secrets, files, or lists without end', () => {
  expect(auditable(['Dear office,\nyour code is X7'])).toEqual(['…']);
  const form = { password: 'p', authCode: 'c', user: 'odo', names: Array.from({ length: 40 }, (_, i) => i) };
  expect(auditable({ form, content: new Uint8Array(9), note: 'x'.repeat(500) })).toEqual({
    form: { password: '…', authCode: '…', user: 'odo', names: [...Array(20).keys(), 'and 20 more'] },
    content: '…',
    note: `${'x'.repeat(200)}…`,
  });
});

test('what is exported is verified by the command, wherever it is kept; a changed file, and one cut off, are told', async () => {
  const folder = mkdtempSync(join(tmpdir(), 'name-ledger-audit-'));
  const file = join(folder, 'audit.jsonl');
  const verify = (...more: string[]) => {
    const { status, stdout, stderr } = spawnSync(join(ROOT, 'bin', 'verify-audit'), [file, ...more], {
      encoding: 'utf8',
    });
    return { status, said: `${stdout}${stderr}` };
  };
  let saved = '';
  for await (const piece of auditExport(ledger)) saved += piece;
  const { head, lines } = await verifyAudit(ledger);
  writeFileSync(file, saved);
  expect(verify('--head', head)).toEqual({
    status: 0,
    said: `Every one of ${lines} lines follows from the one before it. The last: ${head}\n`,
  });
  writeFileSync(file, saved.trim().split('\n').slice(0, -1).join('\n'));
  expect(verify()).toMatchObject({ status: 0 });
  expect(verify('--head', head)).toMatchObject({ status: 1, said: expect.stringContaining('lines were cut off') });
  writeFileSync(file, saved.replace('Odo Quill', 'Una Fell'));
  expect(verify()).toMatchObject({ status: 1, said: expect.stringContaining('does not follow') });
  rmSync(folder, { recursive: true });
});
