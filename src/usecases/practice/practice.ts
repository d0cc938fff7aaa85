import { type PracticeState, practiceControl, practiceUrl } from '@/connectors/practice/control';
import { type Refusal, refuse } from '@/core/refusal';
import { loadClock } from '../clock';
import { compute } from '../computing';
import type { Deps } from '../deps';
import { pollEveryAccount } from '../links/poll';
import { command } from '../people/command';

export type { PracticeState } from '@/connectors/practice/control';

const NO_PRACTICE = refuse('no-practice', 'The practice world runs with the demo only. Start with bin/start --fresh.');

/** Whether a practice world runs beside this program. */
export function hasPractice(): boolean {
  return practiceUrl() !== null;
}

/** How the practice world stands, or that there is none. */
export async function practiceState(): Promise<PracticeState | Refusal> {
  const url = practiceUrl();
  if (!url) return NO_PRACTICE;
  try {
    return await practiceControl(url);
  } catch {
    return refuse('practice-away', 'The practice world does not answer. Stop the program and start it again.');
  }
}

/**
 * Lets one day pass, outside and here: the practice world plays it through, this program's clock follows, and what the
 * registrars have to tell is taken in. Answers the new state.
 */
export const letDayPass = command('letDayPass', async (deps: Deps): Promise<PracticeState | Refusal> => {
  const url = practiceUrl();
  if (!url) return NO_PRACTICE;
  await compute(deps, 'passDay', url);
  await loadClock(deps);
  return practiceControl(url);
});

/** Switches a fault on at one registrar, for so many more orders; `kind` null switches it off. */
export const setFault = command(
  'setFault',
  async (_deps: Deps, registrar: string, kind: string | null, times: number): Promise<PracticeState | Refusal> => {
    const url = practiceUrl();
    if (!url) return NO_PRACTICE;
    return practiceControl(url, '/fault', { registrar, kind, times });
  },
);

/** Somebody asks for a transfer of one of the office's names; what its registrar tells of that is taken in. */
export const askForName = command('askForName', async (deps: Deps, name: string): Promise<PracticeState | Refusal> => {
  const url = practiceUrl();
  if (!url) return NO_PRACTICE;
  try {
    const state = await practiceControl(url, '/transfer-requested', { name: name.trim().toLowerCase() });
    await pollEveryAccount(deps);
    return state;
  } catch (error) {
    return refuse(
      'practice-refuses',
      error instanceof Error ? error.message : 'The practice world refuses it.',
      'name',
    );
  }
});

/** Confirms the mail address of a name's holder, as the holder would by the link in the registrar's mail. */
export const confirmHolderMail = command(
  'confirmHolderMail',
  async (deps: Deps, name: string): Promise<PracticeState | Refusal> => {
    const url = practiceUrl();
    if (!url) return NO_PRACTICE;
    const state = await practiceControl(url, '/mail-confirmed', { name });
    await pollEveryAccount(deps);
    return state;
  },
);
