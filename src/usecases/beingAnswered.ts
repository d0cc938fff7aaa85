import { setImmediate, setTimeout as wait } from 'node:timers/promises';

/** Somebody who is not done after so long waits for something else than this machine. */
const LONGEST_MS = 2000;
/** Long work looks again so often whether it may go on, and goes on after a few looks whoever asks: a million rows still end in their two minutes. */
const LOOK_MS = 1;
const LOOKS = 3;

/** How many are being answered at this moment by a process, in memory that its threads share: long work lets them go first. */
export class BeingAnswered {
  constructor(readonly memory: Int32Array = new Int32Array(new SharedArrayBuffer(Int32Array.BYTES_PER_ELEMENT))) {}

  /** Counts one more, until what it answers is called, or for two seconds. */
  begin(): () => void {
    Atomics.add(this.memory, 0, 1);
    let isDone = false;
    const end = () => {
      clearTimeout(last);
      if (!isDone) Atomics.sub(this.memory, 0, 1);
      isDone = true;
    };
    const last = setTimeout(end, LONGEST_MS).unref();
    return end;
  }

  get some(): boolean {
    return Atomics.load(this.memory, 0) > 0;
  }
}

/** What long work awaits after every millisecond or so: it goes on at once where nobody is being answered, else a few milliseconds later. */
export async function goOnAmong(others: BeingAnswered | undefined): Promise<void> {
  await setImmediate();
  for (let look = 0; others?.some && look < LOOKS; look += 1) await wait(LOOK_MS);
}
