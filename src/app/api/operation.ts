import type { ClassConstructor } from 'class-transformer';
import type { Refusal } from '@/core/refusal';
import type { Deps } from '@/usecases/deps';
import type { Ground } from './documents/answers';
import type { Kind } from './kinds';
import type { Schema } from './schemas';

/** What a program asked. */
export interface Asked {
  readonly deps: Deps;
  /** The parts of the address, decoded: `{ id: '7' }`. */
  readonly path: Readonly<Record<string, string>>;
  readonly query: URLSearchParams;
  /** The request's body, names in it put into the ledger's own numbers; not yet checked. */
  readonly body: unknown;
  readonly key: string | null;
}

export type Method = 'GET' | 'POST' | 'PUT' | 'PATCH' | 'DELETE';

export interface QueryParameter {
  readonly schema: Schema;
  readonly description: string;
  readonly required?: boolean;
}

/** One command or query of the interface for other programs. */
export interface Operation<T = never> {
  readonly method: Method;
  /** Below `/api/v1`: `/listings/{id}`. */
  readonly path: string;
  readonly summary: string;
  readonly query?: Readonly<Record<string, QueryParameter>>;
  /** The class that checks the body. Its `nameId` and `nameIds` are asked for as `name` and `names`. */
  readonly body?: ClassConstructor<object>;
  /** A body may be left out. */
  readonly optionalBody?: boolean;
  /** A body that has no class of its own. */
  readonly bodySchema?: Schema;
  /** Members of the body that the address says: `{ saleId: 'id' }`. */
  readonly fills?: Readonly<Record<string, string>>;
  /** Its answer is shown once: it is kept with no key. */
  readonly isSecret?: boolean;
  /** It spends money: no two requests may be one by mistake, so a key is asked for. */
  readonly spends?: boolean;
  readonly status?: 200 | 201 | 202;
  readonly answer: Kind<T>;
  run(asked: Asked): Promise<T | Refusal>;
  /** What the money of the answer rests on, where its document does not say it by itself. */
  readonly rests?: readonly Ground[];
  /** What goes on by itself after the answer; the jobs carry on what is left. */
  readonly after?: (deps: Deps, asked: Asked) => Promise<unknown>;
}

/** Any operation of the table. */
export type AnyOperation = Operation<never>;

/** An operation whose answer is what its kind describes. */
export const operation = <T>(one: Operation<T>): AnyOperation => one as unknown as AnyOperation;
