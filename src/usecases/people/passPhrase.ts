import { hash, verify } from '@node-rs/argon2';
import { ZxcvbnFactory } from '@zxcvbn-ts/core';
import { dictionary } from '@zxcvbn-ts/language-common';
import { type Refusal, refuse } from '@/core/refusal';

/** Between these lengths a pass phrase is held against what is guessed first. Source: ASVS 5 V6.2.1, V6.2.9. */
export const PASS_PHRASE = { least: 12, most: 128 } as const;
/** argon2id, 19 MB, two passes. Source: RFC 9106, OWASP password storage. */
const COST = { memoryCost: 19_456, timeCost: 2, parallelism: 1 } as const;

const guesser = new ZxcvbnFactory({ dictionary });

/** Why a pass phrase will not do; `null` when it will. What the person and the program are called is guessed first. */
export function refusePassPhrase(phrase: string, name: string): Refusal | null {
  if (phrase.length < PASS_PHRASE.least)
    return refuse(
      'pass-phrase-short',
      `Write ${PASS_PHRASE.least} letters or more: several words do well.`,
      'passPhrase',
    );
  if (phrase.length > PASS_PHRASE.most)
    return refuse('pass-phrase-long', `Write ${PASS_PHRASE.most} letters at most.`, 'passPhrase');
  const { score } = guesser.check(phrase, [name, ...name.split(/\s+/), 'name ledger', 'nameledger']);
  return score < 3
    ? refuse(
        'pass-phrase-guessable',
        'That is guessed soon. Take several words that do not belong together.',
        'passPhrase',
      )
    : null;
}

export function hashPassPhrase(phrase: string): Promise<string> {
  return hash(phrase.normalize('NFKC'), COST);
}

/** A hash that nothing fits: who does not exist takes as long to be refused as who does. */
let nobody: Promise<string> | null = null;

/** Whether a pass phrase is the one of a hash; without a hash it never is, and takes as long. */
export async function fitsPassPhrase(phrase: string, kept: string | null): Promise<boolean> {
  nobody ??= hashPassPhrase(crypto.randomUUID());
  const fits = await verify(kept ?? (await nobody), phrase.normalize('NFKC').slice(0, PASS_PHRASE.most));
  return fits && kept !== null;
}
