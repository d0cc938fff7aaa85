import { practiceControl, practiceUrl } from '@/connectors/practice/control';
import { selectRevision } from '@/database/ledger';
import { beat, type JobResult, noteJob, selectJobResults, selectParts } from '@/database/parts';
import type { Deps } from '../deps';
import { causeOf } from '../log';

export type { JobResult } from '@/database/parts';

/** How one part of the program is. */
export interface PartHealth {
  readonly name: 'database' | 'jobs' | 'practice';
  /** `null` while it cannot be known: the jobs say how they are by the database. */
  readonly isUp: boolean | null;
  /** Seconds since it was last known to be well; `null` when it never was. */
  readonly ageSeconds: number | null;
}

/** How the whole program is. */
export interface Health {
  readonly isUp: boolean;
  readonly revision: number | null;
  readonly parts: readonly PartHealth[];
  /** Jobs whose last attempt failed. */
  readonly failedJobs: readonly JobResult[];
}

/** A part says that it is well every so often; one that has been silent for longer is down. */
export const BEAT_SECONDS = 5;
const SILENT_SECONDS = 20;
/** The longest a look at a part may take. */
const LOOK_MS = 2500;

async function within<T>(look: Promise<T>): Promise<T | null> {
  let timer: NodeJS.Timeout | undefined;
  const late = new Promise<null>((resolve) => {
    timer = setTimeout(() => resolve(null), LOOK_MS);
  });
  try {
    return await Promise.race([look.catch(() => null), late]);
  } finally {
    clearTimeout(timer);
  }
}

/** Looks at every part, each for a moment only: a part that hangs is told as down, and holds up nothing. */
export async function health(deps: Deps): Promise<Health> {
  const url = practiceUrl();
  const [ledger, practice] = await Promise.all([
    within(Promise.all([selectRevision(deps.database), selectParts(deps.database), selectJobResults(deps.database)])),
    url ? within(practiceControl(url)) : null,
  ]);
  const [revision = null, parts = [], jobs = []] = ledger ?? [];
  const jobsPart = parts.find(({ name }) => name === 'jobs');
  const all: PartHealth[] = [
    { name: 'database', isUp: ledger !== null, ageSeconds: ledger === null ? null : 0 },
    {
      name: 'jobs',
      isUp: ledger === null ? null : jobsPart !== undefined && jobsPart.ageSeconds <= SILENT_SECONDS,
      ageSeconds: jobsPart?.ageSeconds ?? null,
    },
    ...(url ? [{ name: 'practice', isUp: practice !== null, ageSeconds: practice === null ? null : 0 } as const] : []),
  ];
  return {
    isUp: all.every(({ isUp }) => isUp === true),
    revision,
    parts: all,
    failedJobs: jobs.filter(({ problem }) => problem !== null),
  };
}

/** Says that a part is well, at once and from then on, until it is stopped. A beat that is missed is told by its age. */
export function keepBeating(deps: Deps, part: string): () => void {
  let isNew = true;
  const say = () =>
    void beat(deps.database, part, isNew).then(
      () => {
        isNew = false;
      },
      (error: unknown) => deps.log.warn({ err: error }, 'this part could not say that it is well'),
    );
  say();
  const timer = setInterval(say, BEAT_SECONDS * 1000);
  return () => clearInterval(timer);
}

/** Does what happens by itself, and takes down how it went: a failure is told on the place it concerns. */
export async function doJob(deps: Deps, job: string, work: (deps: Deps) => Promise<unknown>): Promise<void> {
  try {
    await work(deps);
    await noteJob(deps.database, job, null);
  } catch (error) {
    deps.log.error({ err: error, job }, 'a job failed');
    await noteJob(deps.database, job, causeOf(error).message.slice(0, 300)).catch(() => undefined);
    throw error;
  }
}
