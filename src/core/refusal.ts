/** Why something was not done: a stable `code`, and a `message` that says what to do next. Refusals are values, never thrown. */
export interface Refusal {
  readonly kind: 'refusal';
  readonly code: string;
  readonly message: string;
  /** The field that is wrong, the first of them, as a path: `items.0.years`. */
  readonly field?: string;
  /** Every field that is wrong, with what to write there. */
  readonly fields?: Readonly<Record<string, string>>;
}

/** Makes a refusal. `code` is part of the public interface and never changes its meaning. */
export function refuse(code: string, message: string, field?: string): Refusal {
  return field === undefined ? { kind: 'refusal', code, message } : { kind: 'refusal', code, message, field };
}

/** True when a command's answer is a refusal. */
export function isRefusal(value: unknown): value is Refusal {
  return typeof value === 'object' && value !== null && (value as { kind?: unknown }).kind === 'refusal';
}
