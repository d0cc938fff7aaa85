const MB = 1024 * 1024;

/** The largest list that is brought in at once, in bytes. */
export const LARGEST_FILE = 64 * MB;

/** The most rows of a list. An office of two hundred thousand names brings its whole ledger in four times over. */
export const MOST_ROWS = 1_000_000;

/** The most cells of a list: a million rows of forty columns would be more than the file's size allows. */
export const MOST_CELLS = 20_000_000;

/** The largest backup that is restored, in bytes: some two million names. It is never held in memory as a whole. */
export const LARGEST_BACKUP = 2048 * MB;

/** What is said of a body that is longer than its route takes. */
export function tooLarge(bytes: number): string {
  const mb = Math.round(bytes / 1024 / 1024);
  return `This is larger than ${mb} MB, the most that is taken here. Nothing of it was read. Split it, and send the parts one after the other.`;
}

/** The most that a file of mails may hold, in bytes. */
export const LARGEST_MAILS = 32 * 1024 * 1024;
