/** Why something was not done: a stable `code`, and a `message` that says what to do next. Refusals are values, never thrown. */
export interface Refusal {
  readonly kind: 'refusal';
  readonly code: string;
  readonly message: string;
  readonly field?: string;
}

/** Makes a refusal. `code` is part of the public interface and never changes its meaning. */
export function refuse(code: string, message: string, field?: string): Refusal {
  return field === undefined ? { kind: 'refusal', code, message } : { kind: 'refusal', code, message, field };
}

/** True when a command's answer is a refusal. */
export function isRefusal(value: unknown): value is Refusal {
  return typeof value === 'object' && value !== null && (value as { kind?: unknown }).kind === 'refusal';
}
