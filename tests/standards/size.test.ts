import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import ts from 'typescript';
import { expect, test } from 'vitest';
import { ROOT } from '../../bin/support/programs';

/** No function is longer, markup included, without a reason beside it: `// Long because …`. */
const MOST_LINES = 80;
/** The style checker's own bound leaves markup out; where it is lifted, its reason stands beside it. */
const REASON = /\/\/ (Long because |biome-ignore lint\/complexity\/noExcessiveLinesPerFunction: )/;

function longIn(path: string): string[] {
  const text = readFileSync(join(ROOT, path), 'utf8');
  const file = ts.createSourceFile(path, text, ts.ScriptTarget.Latest, true);
  const found: string[] = [];
  const look = (node: ts.Node) => {
    if (ts.isFunctionLike(node)) {
      const lines = [node.getStart(file), node.end].map((at) => file.getLineAndCharacterOfPosition(at).line);
      const length = (lines[1] ?? 0) - (lines[0] ?? 0) + 1;
      const before = text.slice(node.pos, node.getStart(file));
      if (length > MOST_LINES && !REASON.test(before)) found.push(`${path}:${(lines[0] ?? 0) + 1} has ${length} lines`);
    }
    ts.forEachChild(node, look);
  };
  look(file);
  return found;
}

test(`no function has more than ${MOST_LINES} lines without a reason beside it`, () => {
  const files = ['src', 'practice', 'bin', 'tests']
    .flatMap((part) =>
      readdirSync(join(ROOT, part), { recursive: true, encoding: 'utf8' }).map((path) => join(part, path)),
    )
    .filter((path) => /\.tsx?$/.test(path) && !/\.(test|bench|shots)\.tsx?$/.test(path));
  expect(files.length).toBeGreaterThan(400);
  expect(files.flatMap(longIn)).toEqual([]);
});
