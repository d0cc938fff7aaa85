import { type Refusal, refuse } from '@/core/refusal';
import type { Done } from '@/usecases/changing';
import { documentOf, from, type Kind, named, orNull, text, whole, yesNo } from '../kinds';

/** What a command did to names: the batch of the history by which it is taken back. */
export const done = named('Done', documentOf<Done>()({ batchId: orNull(whole), changed: whole, summary: text }));

/** How many a command was about. */
export const count: Kind<number> = documentOf<number>()({ count: from((n) => n, whole) });

/** That a command was carried out. */
export const carriedOut: Kind<boolean | undefined> = documentOf<boolean | undefined>()({
  done: from(() => true, yesNo),
});

/** The number of what a command has made. */
export const made: Kind<number> = documentOf<number>()({ id: from((id) => id, whole) });

/** The id of what a command has made. */
export const begun: Kind<string> = documentOf<string>()({ id: from((id) => id, text) });

/** What a command says of what it did, in a sentence. */
export const said: Kind<string> = documentOf<string>()({ said: from((sentence) => sentence, text) });

/** A word that is secret until it is asked for. */
export const secret: Kind<string> = documentOf<string>()({ secret: from((word) => word, text) });

/** What was found, or that there is no such thing. */
export const found = <T>(value: T | null | undefined, what: string): T | Refusal =>
  value ?? refuse('not-found', `There is no such ${what}.`);

/** A body of a few plain members. */
export const bodyOf = (properties: Readonly<Record<string, object>>, required = Object.keys(properties)) => ({
  type: 'object',
  properties,
  required,
  additionalProperties: false,
});

/** What the money of an answer rests on. */
export interface Ground {
  readonly what: string;
  /** Of which day or instant it is; `null` where it has none. */
  readonly asOf: string | null;
}

export const grounds: Kind<readonly Ground[]> = (() => {
  const ground = named('Ground', documentOf<Ground>()({ what: text, asOf: orNull(text) }));
  return {
    schema: { type: 'array', items: ground.schema, description: 'What the amounts rest on, in words, with its day.' },
    write: (all) => all.map((one) => ground.write(one)),
  };
})();
