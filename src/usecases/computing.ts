import type { Asker } from '@/core/people';
import { isRefusal, type Refusal } from '@/core/refusal';
import { accountForecast } from './accounts/forecast';
import { candidateDetail } from './acquiring/detail';
import { askAgain, saveIdeas } from './acquiring/ideas';
import { spellNames, starvedCharges } from './acquiring/spelled';
import { candidateTable } from './acquiring/table';
import { deadlineCalendar } from './calendar/calendar';
import { loadClock } from './clock';
import type { Deps } from './deps';
import { importAtOnce } from './imports/importAtOnce';
import { mendRow } from './imports/mendRow';
import { beginImport, type ReadingOptions, readImport } from './imports/readImport';
import { LONG_WORK } from './longWork';
import { decisionsToday, transferPlan, verdicts } from './names/decisions';
import { exportCsv, exportJson, exportXlsx } from './names/export';
import { ledgerBytes, readAnew, shownState } from './names/ledger';
import { pageOfNames } from './names/list';
import { nameOn } from './names/one';
import { passDay } from './practice/passDay';
import { prospectsBytes } from './prospects/body';
import { forecastNow, keepForecast } from './prospects/forecasts';
import { dropList, worthOfNames } from './prospects/names';
import { differingNames } from './records/compare';
import { sendReminders } from './reminders/remind';
import { listingBytes } from './selling/listingTable';
import { sellingAgenda, sellingReport, sellingToday } from './selling/report';
import { tellChange } from './telling';

/** An answer as it goes out: in the thread that computes it, so that nobody else waits while it is written. */
const bytes = (text: string) => new TextEncoder().encode(text);
const json = (value: unknown) => bytes(JSON.stringify(value));
const unlessRefused = <T>(value: T | Refusal, write: (value: T) => Uint8Array): Uint8Array | Refusal =>
  isRefusal(value) ? value : write(value);

/**
 * What looks at every name of the ledger, or reads a whole list: it takes long, and so it is done in a thread of its own, never
 * where requests are answered. Arguments and answers are plain data.
 */
const COMPUTATIONS = {
  candidateTable: async (deps: Deps, setId: number, privacy: boolean) =>
    unlessRefused(await candidateTable(deps, setId, privacy), json),
  accountForecast,
  askAgain,
  candidateDetail,
  saveIdeas,
  spellNames,
  starvedCharges,
  calendar: async (deps: Deps) => bytes(await deadlineCalendar(deps)),
  decisionsToday: async (deps: Deps) => unlessRefused(await decisionsToday(deps), json),
  differingNames,
  exportCsv: async (deps: Deps, query: string) =>
    unlessRefused(await exportCsv(deps, new URLSearchParams(query)), bytes),
  exportJson: async (deps: Deps, query: string) =>
    unlessRefused(await exportJson(deps, new URLSearchParams(query)), bytes),
  exportXlsx: (deps: Deps, query: string) => exportXlsx(deps, new URLSearchParams(query)),
  ledger: (deps: Deps, since: string | null) => ledgerBytes(deps, since),
  listings: listingBytes,
  nameOn: async (deps: Deps, name: string, query: string) =>
    unlessRefused(await nameOn(deps, name, new URLSearchParams(query)), json),
  offers: prospectsBytes,
  readAnew,
  shownState,
  pageOfNames: async (deps: Deps, query: string) =>
    unlessRefused(await pageOfNames(deps, new URLSearchParams(query)), json),
  passDay,
  sellingAgenda,
  sellingReport,
  sellingToday,
  transferPlan: async (deps: Deps, query: string) =>
    unlessRefused(await transferPlan(deps, new URLSearchParams(query)), json),
  worthOfNames: (deps: Deps, query: string) => worthOfNames(deps, new URLSearchParams(query)),
  verdicts: async (deps: Deps) => unlessRefused(await verdicts(deps), json),
  sendReminders,
  beginImport,
  dropList,
  forecastNow,
  keepForecast,
  importAtOnce,
  mendRow,
  readImport: (deps: Deps, id: string, options: ReadingOptions) => readImport(deps, id, options),
} as const;

type Computations = typeof COMPUTATIONS;
export type Computation = keyof Computations;
type Arguments<K extends Computation> = Computations[K] extends (deps: Deps, ...args: infer A) => unknown ? A : never;
type Answer<K extends Computation> = Awaited<ReturnType<Computations[K]>>;

const LONG: ReadonlySet<Computation> = new Set<Computation>(LONG_WORK);

const askerOf = ({ who, command }: Deps): Asker => ({ ...(who ? { who } : {}), ...(command ? { command } : {}) });

/** Computes in the thread where there is one (the application has), else here (jobs, tests). */
export async function compute<K extends Computation>(deps: Deps, name: K, ...args: Arguments<K>): Promise<Answer<K>> {
  if (!deps.thread) return computeHere(deps, name, args);
  const answer = (await deps.thread.run(name, args, askerOf(deps))) as Answer<K>;
  if (LONG.has(name)) await tellChange(deps);
  return answer;
}

/** What the thread does when it is asked. */
export async function computeHere<K extends Computation>(deps: Deps, name: K, args: Arguments<K>): Promise<Answer<K>> {
  const computation = COMPUTATIONS[name] as unknown as (deps: Deps, ...args: Arguments<K>) => Promise<Answer<K>>;
  return computation(deps, ...args);
}

/** What begins with the state of the ledger, and so with the clock as it stands now. */
const READS_STATE: ReadonlySet<string> = new Set<Computation>([
  'exportCsv',
  'exportJson',
  'exportXlsx',
  'ledger',
  'nameOn',
  'offers',
  'pageOfNames',
]);

/** The same in a thread, whose clock may have been moved by another. */
export async function computeInThread(deps: Deps, name: Computation, args: readonly unknown[]): Promise<unknown> {
  if (!(name in COMPUTATIONS)) throw new Error(`there is no computation ${name}`);
  if (!READS_STATE.has(name)) await loadClock(deps);
  return computeHere(deps, name, args as never);
}
