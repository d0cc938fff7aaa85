import { type Refusal, refuse } from '@/core/refusal';

/** Sends a step of signing in; a refusal comes back as the one that it is. */
export async function step<T>(path: string, body: unknown = {}): Promise<T | Refusal> {
  const response = await fetch(path, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify(body),
  }).catch(() => null);
  if (response === null) return refuse('no-answer', 'The program does not answer. Try again.');
  const answer = (await response.json()) as T & {
    code?: string;
    detail?: string;
    field?: string;
    fields?: Refusal['fields'];
  };
  if (response.ok) return answer;
  const refusal = refuse(answer.code ?? 'no-answer', answer.detail ?? 'That was not done. Try again.', answer.field);
  return answer.fields ? { ...refusal, fields: answer.fields } : refusal;
}

/** What is said of a passkey that the browser did not give. */
export function passkeyProblem(error: unknown): Refusal {
  const name = error instanceof Error ? error.name : '';
  return refuse(
    'passkey-not-given',
    name === 'InvalidStateError'
      ? 'There is a passkey of yours on this device already.'
      : 'The browser gave no passkey. Try again, or take another way.',
  );
}
