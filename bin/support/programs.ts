import { createHash } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { type BuildOptions, buildSync, context, type Metafile } from 'esbuild';

export const ROOT = join(dirname(fileURLToPath(import.meta.url)), '../..');
/** The programs that are started, each bundled from its one file. */
const PROGRAMS = {
  server: 'src/server/main.ts',
  jobs: 'src/jobs/main.ts',
  thread: 'src/thread/main.ts',
  shop: 'src/shop/main.ts',
  practice: 'practice/main.ts',
} as const;
export type Program = keyof typeof PROGRAMS;

/** Where a program of this project stands once it is built. */
export const programPath = (program: Program) => join(ROOT, '.next/programs', `${program}.mjs`);

const OPTIONS = {
  entryPoints: PROGRAMS,
  outdir: join(ROOT, '.next/programs'),
  outExtension: { '.js': '.mjs' },
  bundle: true,
  packages: 'external',
  platform: 'node',
  format: 'esm',
  target: 'node20',
  sourcemap: true,
  absWorkingDir: ROOT,
  logLevel: 'warning',
} satisfies BuildOptions;

export function buildPrograms(): void {
  buildSync(OPTIONS);
}

/**
 * Builds the programs, and again whenever a source of theirs changes: `changed` hears which of them are new. What the application
 * shows is reloaded by the framework, so that its program is new only with the way in. Resolves after the first build.
 */
export async function watchPrograms(changed: (program: Program) => void): Promise<() => Promise<void>> {
  const known = new Map<Program, string>();
  let built: () => void = () => undefined;
  const first = new Promise<void>((resolve) => (built = resolve));
  const watching = await context({
    ...OPTIONS,
    metafile: true,
    plugins: [
      {
        name: 'tell',
        setup: (build) =>
          build.onEnd(({ metafile }) => {
            // A source that cannot be read has been told of; what runs goes on as it is.
            if (!metafile) return;
            for (const program of Object.keys(PROGRAMS) as Program[]) {
              const now = fingerprint(metafile, program);
              const before = known.get(program);
              known.set(program, now);
              if (before !== undefined && before !== now) changed(program);
            }
            built();
          }),
      },
    ],
  });
  await watching.watch();
  await first;
  return () => watching.dispose();
}

function fingerprint({ outputs }: Metafile, program: Program): string {
  const hash = createHash('sha256');
  for (const [path, output] of Object.entries(outputs)) {
    if (!path.endsWith(`/${program}.mjs`)) continue;
    for (const input of Object.keys(output.inputs).sort())
      if (program !== 'server' || input.startsWith('src/server/'))
        hash.update(input).update(readFileSync(join(ROOT, input)));
  }
  return hash.digest('hex');
}
