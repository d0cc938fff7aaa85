import { ValidateBy } from 'class-validator';
import { type Refusal, refuse } from '@/core/refusal';
import { isOneLine, refuseText } from '@/core/text/plainText';

/** A label or a tag is one line: it stands in lists, menus and headings. */
export function OneLine(each = false): PropertyDecorator {
  const isGood = (value: unknown) => typeof value === 'string' && isOneLine(value);
  return ValidateBy(
    { name: 'oneLine', validator: { validate: isGood, defaultMessage: () => 'Write it in one line.' } },
    { each },
  );
}

/** Several rules of one field under one name. */
export function together(...rules: readonly PropertyDecorator[]): PropertyDecorator {
  return (target, property) => {
    // As if they stood above the member: the last is applied first.
    for (const rule of [...rules].reverse()) rule(target, property);
  };
}

/** Words by their labels, each of one line: at most `most` of them. */
export function Choices(most: number): PropertyDecorator {
  const isGood = (value: unknown) =>
    typeof value === 'object' &&
    value !== null &&
    Object.entries(value).length <= most &&
    Object.entries(value)
      .flat()
      .every((text) => typeof text === 'string' && text.length <= MOST_LETTERS && isOneLine(text));
  return ValidateBy({
    name: 'choices',
    validator: { validate: isGood, defaultMessage: () => 'Choose one of the options that the marketplace gives.' },
  });
}

const MOST_LETTERS = 120;

/** Deeper than any request of ours. */
const MOST_DEPTH = 20;

/** Why a request's texts cannot be kept as they are; `null` when they can. Looks at every member, keys too. */
export function refuseTexts(value: unknown, path = '', depth = 0): Refusal | null {
  if (typeof value === 'string') return refuseText(value, path);
  if (typeof value !== 'object' || value === null) return null;
  if (depth >= MOST_DEPTH)
    return refuse('request-too-deep', `This request nests more than ${MOST_DEPTH} levels deep. None of ours does.`);
  for (const [key, member] of Object.entries(value)) {
    const field = path === '' ? key.slice(0, 60) : path;
    const refused = (Array.isArray(value) ? null : refuseText(key, field)) ?? refuseTexts(member, field, depth + 1);
    if (refused) return refused;
  }
  return null;
}
