import { ANSWER_HOLDS_HOURS, type Candidate, type Candidates, candidatesFrom } from '@/core/acquiring';
import { letterNotTaken, policyFor } from '@/core/lifecycle';
import { parseDomainName } from '@/core/names';
import { isRefusal, type Refusal, refuse } from '@/core/refusal';
import type { Instant } from '@/core/time';
import { type AskingProgress, enqueueNames, selectAskingProgress } from '@/database/availability';
import {
  deleteIdeaSet,
  type IdeaSetRow,
  insertIdeaSet,
  noteCompared,
  pauseIdeaSet,
  selectIdeaSet,
  selectIdeaSets,
  updateIdeaSet,
} from '@/database/ideaSets';
import { transaction } from '@/database/pool';
import type { Deps } from '../deps';
import { command } from '../people/command';
import { policiesByEnding } from '../records/watched';
import { readRequest } from '../validate';
import { IdeaSetForm } from './requests';

export type { AskingProgress } from '@/database/availability';
export type { IdeaSetRow } from '@/database/ideaSets';

/** Labels times endings: more than anybody reads, and more than a registrar wants to be asked for. */
const MOST_NAMES = 60_000;
const HOUR = 3_600_000;

/** Every set of ideas, the newest first. */
export function ideaSets(deps: Deps): Promise<IdeaSetRow[]> {
  return selectIdeaSets(deps.database);
}

/** What a set comes to, with the endings that were typed beside those that were chosen. */
export interface IdeasRead extends Candidates {
  readonly allEndings: readonly string[];
}

export function readIdeas({
  ideas,
  patterns,
  endings,
}: Pick<IdeaSetRow, 'ideas' | 'patterns' | 'endings'>): IdeasRead | Refusal {
  const read = candidatesFrom(ideas, patterns);
  if (isRefusal(read)) return read;
  return { ...read, allEndings: [...new Set([...endings, ...read.endings])] };
}

/** Keeps a set of ideas, new (`id` null) or changed, and puts its names in line to be asked for. Answers its id. */
export const saveIdeas = command(
  'saveIdeas',
  async (deps: Deps, id: number | null, input: unknown): Promise<number | Refusal> => {
    const form = await readRequest(IdeaSetForm, input);
    if (isRefusal(form)) return form;
    const endings: string[] = [];
    for (const written of form.endings) {
      const ending = endingOf(written);
      if (isRefusal(ending)) return ending;
      endings.push(ending);
    }
    const draft = {
      label: form.label?.trim() || form.ideas.trim().slice(0, 60).replace(/\s+/g, ' '),
      ideas: form.ideas,
      patterns: [...new Set(form.patterns)],
      endings: [...new Set(endings)],
      heldYears: form.heldYears,
    };
    const read = readIdeas(draft);
    if (isRefusal(read)) return read;
    if (read.allEndings.length === 0) return refuse('no-endings', 'Choose an ending at least.', 'endings');
    if (read.candidates.length * read.allEndings.length > MOST_NAMES)
      return refuse(
        'too-many-candidates',
        `${read.candidates.length.toLocaleString('en')} candidates under ${read.allEndings.length} endings are too many. Choose fewer endings, words or patterns.`,
        'endings',
      );
    return transaction(deps.database, async (tx) => {
      const at = deps.clock();
      if (id !== null && !(await updateIdeaSet(tx, id, draft))) return gone();
      const setId = id ?? (await insertIdeaSet(tx, draft, at));
      await enqueueNames(tx, setId, await namesToAsk(deps, read), answeredSince(at), at);
      return setId;
    });
  },
);

const gone = () => refuse('ideas-gone', 'These ideas are no longer there. Load the page again.');
const answeredSince = (at: Instant) => (at - ANSWER_HOLDS_HOURS * HOUR) as Instant;

/** An ending as it is typed, in A-label form; refused for one under which no registry hands out names. */
function endingOf(written: string): string | Refusal {
  const name = parseDomainName(`seaholly.${written.trim().replace(/^\./, '')}`);
  return isRefusal(name)
    ? refuse('ending-unknown', `No registry hands out names under .${written}.`, 'endings')
    : name.ending;
}

/** Every name of a set that its ending's registry may take. */
async function namesToAsk(deps: Deps, read: IdeasRead): Promise<{ ascii: string; ending: string }[]> {
  const takes = await takenLetters(deps, read.allEndings);
  return read.candidates.flatMap((candidate) =>
    read.allEndings.flatMap((ending) =>
      takes(candidate, ending) === null ? [{ ascii: `${candidate.label}.${ending}`, ending }] : [],
    ),
  );
}

/** The first letter of a candidate that an ending's registry does not take, by what is known of its letters; `null` where none. */
export async function takenLetters(
  deps: Deps,
  endings: readonly string[],
): Promise<(candidate: Candidate, ending: string) => string | null> {
  const policies = await policiesByEnding(deps);
  const byEnding = new Map(endings.map((ending) => [ending, policyFor(ending, policies)]));
  return ({ unicode }, ending) => {
    const policy = byEnding.get(ending);
    return policy ? letterNotTaken(unicode, policy) : null;
  };
}

/** Asks for a set's names again: those without an answer that still holds, or all of them anew. What changes from now on is marked. */
export const askAgain = command(
  'askAgain',
  async (deps: Deps, id: number, anew: boolean): Promise<AskingProgress | Refusal> => {
    const set = await selectIdeaSet(deps.database, id);
    const read = set && readIdeas(set);
    if (!read) return gone();
    if (isRefusal(read)) return read;
    const names = await namesToAsk(deps, read);
    await transaction(deps.database, async (tx) => {
      const at = deps.clock();
      await noteCompared(tx, id, at);
      await enqueueNames(tx, id, names, anew ? at : answeredSince(at), at);
      await pauseIdeaSet(tx, id, false);
    });
    return selectAskingProgress(deps.database, id);
  },
);

/** Stops the asking for a set's names, or resumes it. */
export const pauseIdeas = command(
  'pauseIdeas',
  async (deps: Deps, id: number, paused: boolean): Promise<AskingProgress | Refusal> => {
    if (!(await pauseIdeaSet(deps.database, id, paused))) return gone();
    return selectAskingProgress(deps.database, id);
  },
);

/** Throws a set of ideas away. What was found of its names is kept: it holds for other sets too. */
export const removeIdeas = command('removeIdeas', async (deps: Deps, id: number): Promise<true> => {
  await transaction(deps.database, (tx) => deleteIdeaSet(tx, id));
  return true;
});

/** How far the asking for a set's names has come. */
export function askingProgress(deps: Deps, id: number): Promise<AskingProgress> {
  return selectAskingProgress(deps.database, id);
}
