/** What can go wrong on the way, on demand. */
export const FAULTS = [
  'refused',
  'slow',
  'cut',
  'garbage',
  'duplicate',
  'busy',
  'result lost',
  'report refused',
  'finished later',
  'code wrong',
  'transfer rejected',
  'approval lost',
  'zone not loaded',
  'somebody faster',
  'dearer',
] as const;
export type FaultKind = (typeof FAULTS)[number];

/** A fault that is switched on at one registrar, for so many more commands that change something. */
export interface Fault {
  readonly kind: FaultKind;
  left: number;
}

export const SLOW_MS = 4_000;

/** The faults of every registrar. */
export class Faults {
  private readonly on = new Map<string, Fault>();

  set(registrar: string, kind: FaultKind | null, times: number): void {
    if (kind === null || times <= 0) this.on.delete(registrar);
    else this.on.set(registrar, { kind, left: times });
  }

  /** The fault that strikes now, if it is one of `kinds`; it has one turn less after. */
  strike(registrar: string, kinds: readonly FaultKind[]): FaultKind | null {
    const fault = this.on.get(registrar);
    if (!fault || !kinds.includes(fault.kind)) return null;
    fault.left -= 1;
    if (fault.left <= 0) this.on.delete(registrar);
    return fault.kind;
  }

  all(): Record<string, Fault> {
    return Object.fromEntries(this.on);
  }
}
