import 'reflect-metadata';
import { type ClassConstructor, plainToInstance } from 'class-transformer';
import { type ValidationError, validate } from 'class-validator';
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

/**
 * Checks what came from outside against a request class. Answers the request, or a refusal that names the first wrong
 * field. Fields that the class does not know are refused.
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
  const first = errors[0];
  return first ? refusalOf(first) : request;
}

function refusalOf(error: ValidationError, path = ''): Refusal {
  const field = path === '' ? error.property : `${path}.${error.property}`;
  const child = error.children?.[0];
  if (child) return refusalOf(child, field);
  const message = Object.values(error.constraints ?? {})[0] ?? 'is not right';
  return refuse('request-invalid', /[.?]$/.test(message) ? message : `${field}: ${message}.`, field);
}
