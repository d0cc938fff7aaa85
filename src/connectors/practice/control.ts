/** How the practice world stands: its clock, and the faults that are switched on. */
export interface PracticeState {
  readonly now: string;
  readonly mails: readonly {
    readonly at: string;
    readonly to: string;
    readonly subject: string;
    readonly text: string;
  }[];
  /** Names whose holder has not confirmed the mail address; `by` is `null` once it is too late. */
  readonly toConfirm: readonly { readonly name: string; readonly by: number | null }[];
  readonly faults: Readonly<Record<string, { readonly kind: string; readonly left: number }>>;
}

/** Where the practice world is controlled: `PRACTICE_URL` on this machine; `null` without one. */
export function practiceUrl(): string | null {
  return process.env.PRACTICE_URL ?? null;
}

/** Asks the practice world, or tells it something. Throws when it does not answer or refuses. */
export async function practiceControl(url: string, path = '/', body: object | null = null): Promise<PracticeState> {
  const response = await fetch(url + path, {
    ...(body ? { method: 'POST', body: JSON.stringify(body) } : {}),
    signal: AbortSignal.timeout(60_000),
  });
  const answer = (await response.json()) as PracticeState & { message?: string };
  if (!response.ok) throw new Error(answer.message ?? `the practice world answered ${response.status}`);
  return answer;
}
