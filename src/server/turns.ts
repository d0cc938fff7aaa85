/** Lets so many at once through, the others in the order in which they came. */
export class Turns {
  private open = 0;
  private readonly queue: (() => void)[] = [];

  constructor(private readonly atOnce: number) {}

  /** How many wait now. */
  get waiting(): number {
    return this.queue.length;
  }

  /** Waits for a turn; what it answers ends it, and may be called more than once. */
  async take(): Promise<() => void> {
    if (this.open >= this.atOnce) await new Promise<void>((go) => this.queue.push(go));
    else this.open += 1;
    let isOver = false;
    return () => {
      if (isOver) return;
      isOver = true;
      // The turn is handed on, so that nobody who has just come slips in between.
      const next = this.queue.shift();
      if (next) next();
      else this.open -= 1;
    };
  }
}
