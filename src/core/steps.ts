/** Long work, cut where whoever does it may see to something else first. */
export type Steps<T> = Generator<undefined, T, undefined>;

/** Does all of it in one go. */
export function inOneGo<T>(steps: Steps<T>): T {
  for (;;) {
    const step = steps.next();
    if (step.done) return step.value;
  }
}
