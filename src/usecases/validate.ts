import 'reflect-metadata';
import { type ClassConstructor, plainToInstance } from 'class-transformer';
import { Matches, type ValidationError, type ValidationOptions, validate } from 'class-validator';
import { type Refusal, refuse } from '@/core/refusal';
import { refuseTexts } from './texts';

/** Empty texts mean "not said": they become `undefined` before types are made, so that '' never turns into 0. */
function withoutBlanks(value: unknown): unknown {
  if (Array.isArray(value)) return value.map(withoutBlanks);
  if (typeof value !== 'object' || value === null) return value;
  return Object.fromEntries(
    Object.entries(value).flatMap(([key, v]) => (v === '' || v === null ? [] : [[key, withoutBlanks(v)]])),
  );
}

/** A field that holds a currency's code (ISO 4217), as far as its letters show. */
export const CurrencyCode = (options: ValidationOptions = {}) =>
  Matches(/^[A-Z]{3}$/, { message: 'Write a currency code like USD.', ...options });

/** A field that holds a day as `YYYY-MM-DD`, as far as its digits show; whether there is such a day, `parseDay` tells. */
export const WrittenDay = (options: ValidationOptions = {}) =>
  Matches(/^\d{4}-\d{2}-\d{2}$/, { message: 'Write the day like 2027-09-21.', ...options });

/** Only the fields of a request that were said, as plain data. */
export function saidIn<T extends object>(request: T): Partial<T> {
  return Object.fromEntries(Object.entries(request).filter(([, value]) => value !== undefined)) as Partial<T>;
}

/**
 * Checks what came from outside against a request class. Answers the request, or a refusal that names every wrong field, each with
 * what to write there, the first of them in its message. Fields that the class does not know are refused.
 */
export async function readRequest<T extends object>(type: ClassConstructor<T>, input: unknown): Promise<T | Refusal> {
  if (typeof input !== 'object' || input === null || Array.isArray(input))
    return refuse('request-not-object', 'Send an object with the fields of this request.');
  const unreadable = refuseTexts(input);
  if (unreadable) return unreadable;
  const request = plainToInstance(type, withoutBlanks(input), { exposeUnsetFields: false });
  const errors = await validate(request, {
    whitelist: true,
    forbidNonWhitelisted: true,
    stopAtFirstError: true,
  });
  const wrong = errors.flatMap((error) => wrongFields(error));
  const [first] = wrong;
  if (!first) return request;
  const [field, message] = first;
  return { ...refuse('request-invalid', message, field), fields: Object.fromEntries(wrong) };
}

/** What a text is held against: a blank field is none, so that its length is not what is wrong with it. */
const TEXT_RULES: ReadonlySet<string> = new Set(['isString', 'minLength', 'maxLength', 'matches']);

/** A rule that says something of its own says a sentence; its package begins with the name of the field. */
const SENTENCE = /^[A-Z“]/;

/** The fields under one error, each by its path with what to write there. */
function wrongFields(
  { property, value, children = [], constraints = {} }: ValidationError,
  path = '',
): [string, string][] {
  const field = path === '' ? property : `${path}.${property}`;
  if (children.length > 0) return children.flatMap((child) => wrongFields(child, field));
  const [[rule, message] = ['', '']] = Object.entries(constraints);
  const isMissing = value === undefined && TEXT_RULES.has(rule) && !SENTENCE.test(message);
  return [[field, isMissing ? 'Write something here.' : inPlainWords(rule, message, property)]];
}

/** A rule that says nothing of its own says it in the words of its package, which are a programmer's: here in plain ones. */
function inPlainWords(rule: string, message: string, property: string): string {
  if (SENTENCE.test(message)) return message;
  const figure = /-?\d[\d.]*/.exec(message.replace(property, ''))?.[0] ?? '';
  const count = Number(figure).toLocaleString('en');
  switch (rule) {
    case 'isString':
      return 'Write it as a text.';
    case 'minLength':
      return figure === '1' ? 'Write something here.' : `Write at least ${count} letters.`;
    case 'maxLength':
      return `Write ${count} letters at most.`;
    case 'isInt':
      return 'Write a whole number.';
    case 'isNumber':
      return 'Write a number.';
    case 'min':
      return `Write ${count} or more.`;
    case 'max':
      return `Write ${count} or less.`;
    case 'isBoolean':
      return 'Say yes or no.';
    case 'isIn':
      return `Choose one of: ${message.replace(/^.*values: /, '')}.`;
    case 'isUuid':
      return 'This is not an id of ours. Load the page again.';
    case 'isArray':
      return 'Send a list.';
    case 'arrayNotEmpty':
      return 'Name at least one.';
    case 'arrayMaxSize':
      return `Name ${count} at most.`;
    case 'isDefined':
      return 'This is missing.';
    case 'whitelistValidation':
      return `There is no field “${property.slice(0, 60)}” here.`;
    default:
      return `${property.slice(0, 60)} is not right: ${message}.`;
  }
}
