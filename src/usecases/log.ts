import { AsyncLocalStorage } from 'node:async_hooks';
import pino, { type Logger } from 'pino';
import type { Who } from '@/core/people';
import type { Instant } from '@/core/time';

/** What is known of the request that is being answered. Shared by every bundle of a process, so it hangs on the global. */
const REQUEST = Symbol.for('name-ledger.request');
interface AskedRequest {
  readonly requestId: string;
  /** Who asks, as the way in has found. */
  readonly who?: Who;
  /** From where, and in which session. */
  readonly from?: AskedFrom;
  /** Hears that what was asked is worked out elsewhere from now on. */
  readonly onHandedOn?: () => void;
}
const shared = globalThis as { [REQUEST]?: AsyncLocalStorage<AskedRequest> };
shared[REQUEST] ??= new AsyncLocalStorage();

/** From where something is asked. */
export interface AskedFrom {
  readonly address: string;
  readonly agent: string;
  /** The origin under which the program was asked: `https://names.example.test`. */
  readonly origin: string;
  /** The session of whoever has signed in; `null` for anybody else. */
  readonly session: { readonly id: number; readonly beganAt: Instant; readonly seenAt: Instant } | null;
}

/** Runs `work` so that everything it logs carries the number of its request, and everything it does is asked by `who`. */
export function withinRequest<T>(asked: AskedRequest, work: () => T): T {
  return (shared[REQUEST] as AsyncLocalStorage<AskedRequest>).run(asked, work);
}

/** Who asks for what is being answered; `undefined` outside of a request. */
export function askedBy(): Who | undefined {
  return shared[REQUEST]?.getStore()?.who;
}

/** From where what is being answered was asked; `undefined` outside of a request. */
export function askedFrom(): AskedFrom | undefined {
  return shared[REQUEST]?.getStore()?.from;
}

/** Says that what was asked is worked out elsewhere from now on: whoever waits for his turn here need not wait for that. */
export function handedOn(): void {
  shared[REQUEST]?.getStore()?.onHandedOn?.();
}

/** The number of the request that is being answered, or `undefined` outside of one. */
export function requestId(): string | undefined {
  return shared[REQUEST]?.getStore()?.requestId;
}

/** What is told of an error. */
export interface Cause {
  readonly type: string;
  readonly message: string;
  readonly code?: unknown;
  readonly stack?: string | undefined;
  readonly cause?: Cause | undefined;
}

/** An error as it is logged: what it is, where, and why. Never its other members: they hold rows, addresses and secrets. */
export function causeOf(error: unknown, depth = 0): Cause {
  if (!(error instanceof Error)) return { type: typeof error, message: String(error).slice(0, 500) };
  return {
    type: error.name,
    message: error.message.slice(0, 2000),
    ...('code' in error ? { code: error.code } : {}),
    stack: error.stack?.split('\n').slice(1, 12).join('\n'),
    ...(error.cause !== undefined && depth < 4 ? { cause: causeOf(error.cause, depth + 1) } : {}),
  };
}

/** The log of one part of the program: lines of JSON on standard output, which the start command keeps in files. */
export function makeLog(part: string): Logger {
  return pino({
    base: { part },
    level: process.env.LOG_LEVEL ?? 'info',
    serializers: { err: (error: unknown) => causeOf(error) },
    redact: { paths: ['*.password', '*.authCode', '*.secret', '*.key', 'password', 'authCode', 'secret', 'key'] },
    mixin: () => {
      const id = requestId();
      return id === undefined ? {} : { requestId: id };
    },
  });
}
