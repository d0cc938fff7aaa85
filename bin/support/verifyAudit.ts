import { createReadStream } from 'node:fs';
import { createInterface } from 'node:readline';
import { parseArgs } from 'node:util';
import { openDatabase } from '../../src/database/pool';
import { type ChainLooked, exportedLines, verifyAudit, verifyLines } from '../../src/usecases/people/audit';

const { values, positionals } = parseArgs({ options: { head: { type: 'string' } }, allowPositionals: true });
const [file] = positionals;

async function look(): Promise<ChainLooked> {
  if (file !== undefined) return verifyLines(exportedLines(createInterface({ input: createReadStream(file) })));
  const url = process.env.DATABASE_URL;
  if (!url) throw new Error('Name the file that was saved under Setup → People, or set DATABASE_URL.');
  const database = openDatabase(url, (error) => console.error(error.message));
  try {
    return await verifyAudit({ database });
  } finally {
    await database.end();
  }
}

try {
  const { lines, head, brokenAt } = await look();
  if (brokenAt !== null) {
    console.error(
      `Line ${brokenAt} does not follow from the one before it: it, or one before it, was changed or taken out.`,
    );
    process.exitCode = 1;
  } else if (values.head !== undefined && values.head !== head) {
    console.error(
      `Every one of ${lines} lines follows, but the last is not the one that was noted: lines were cut off, or added.`,
    );
    process.exitCode = 1;
  } else console.log(`Every one of ${lines} lines follows from the one before it. The last: ${head}`);
} catch (error) {
  console.error(error instanceof Error ? error.message : error);
  process.exitCode = 2;
}
