import type { ClassConstructor } from 'class-transformer';
import { defaultMetadataStorage } from 'class-transformer/cjs/storage';
import type { ValidationMetadata } from 'class-validator/types/metadata/ValidationMetadata';
import { targetConstructorToSchema } from 'class-validator-jsonschema';
import type { Refusal } from '@/core/refusal';
import type { Schema } from './schemas';

type Constructor = ClassConstructor<object>;

/** The class of a nested member, as its rules say. */
function nestedClass({ target, propertyName }: ValidationMetadata): Constructor | null {
  const found = defaultMetadataStorage.findTypeMetadata(target as Constructor, propertyName);
  return (found?.typeFunction() as Constructor | undefined) ?? null;
}

const OPTIONS = {
  classTransformerMetadataStorage: defaultMetadataStorage,
  additionalConverters: {
    // Each is described where it stands: built programs call their classes otherwise.
    nestedValidation: (meta: ValidationMetadata) => {
      const nested = nestedClass(meta);
      return nested ? rawSchema(nested) : {};
    },
    oneLine: { type: 'string' },
    choices: { type: 'object', additionalProperties: { type: 'string' } },
  },
};

const kept = new Map<Constructor, Schema>();

/** A request class as JSON Schema, by its class-validator rules. */
function rawSchema(of: Constructor): Schema {
  const known = kept.get(of);
  if (known) return known;
  const own = targetConstructorToSchema(of, OPTIONS as never) as Schema;
  // A class that adds nothing to the one above it has no rules of its own.
  if (!own.type && Object.getPrototypeOf(of) !== Function.prototype) return rawSchema(Object.getPrototypeOf(of));
  const schema = { ...own, additionalProperties: false };
  kept.set(of, schema);
  return schema;
}

type Properties = Readonly<Record<string, Schema>>;
const propertiesOf = (schema: Schema) => (schema.properties ?? {}) as Properties;

/** A name in place of the ledger's number of it. */
const NAME: Schema = {
  type: 'string',
  maxLength: 253,
  description: 'A name of the ledger: A-label or its own letters.',
};
const BY_NAME: Readonly<Record<string, readonly [string, (schema: Schema) => Schema]>> = {
  nameId: ['name', () => NAME],
  nameIds: ['names', (schema) => ({ ...schema, items: NAME })],
};

function namesInPlaceOfIds(schema: Schema): Schema {
  if (schema.type === 'array') return { ...schema, items: namesInPlaceOfIds(schema.items as Schema) };
  if (!schema.properties) return schema;
  const required = (schema.required ?? []) as readonly string[];
  return {
    ...schema,
    properties: Object.fromEntries(
      Object.entries(propertiesOf(schema)).map(([key, member]) => {
        const [name, change] = BY_NAME[key] ?? [key, namesInPlaceOfIds];
        return [name, change(member)];
      }),
    ),
    required: required.map((key) => BY_NAME[key]?.[0] ?? key),
  };
}

/** What a program sends for a request class: names by name, without the members that the address says. */
export function requestSchema(of: Constructor, filled: readonly string[] = []): Schema {
  const schema = namesInPlaceOfIds(rawSchema(of));
  const isLeft = (key: string) => !filled.some((one) => (BY_NAME[one]?.[0] ?? one) === key);
  const required = ((schema.required ?? []) as readonly string[]).filter(isLeft);
  return {
    ...schema,
    properties: Object.fromEntries(Object.entries(propertiesOf(schema)).filter(([key]) => isLeft(key))),
    ...(required.length > 0 ? { required } : { required: undefined }),
  };
}

/** Every name that a body of this class holds, by where its class looks for the number of a name. */
export function namesIn(of: Constructor, body: unknown): string[] {
  const found: string[] = [];
  walk(rawSchema(of), body, (name) => {
    found.push(name);
    return 0;
  });
  return found;
}

/** The body as its class reads it, the number of each name in its place. */
export const withIds = (of: Constructor, body: unknown, idOf: (name: string) => number): unknown =>
  walk(rawSchema(of), body, idOf);

function walk(schema: Schema, value: unknown, idOf: (name: string) => number): unknown {
  if (Array.isArray(value)) return schema.items ? value.map((one) => walk(schema.items as Schema, one, idOf)) : value;
  if (typeof value !== 'object' || value === null || !schema.properties) return value;
  const properties = propertiesOf(schema);
  const idFor = (one: unknown) => (typeof one === 'string' ? idOf(one) : one);
  return Object.fromEntries(
    Object.entries(value).map(([key, member]) => {
      if (key === 'name' && properties.nameId) return ['nameId', idFor(member)];
      if (key === 'names' && properties.nameIds) return ['nameIds', Array.isArray(member) ? member.map(idFor) : member];
      return [key, properties[key] ? walk(properties[key], member, idOf) : member];
    }),
  );
}

/** A refusal in the words of the interface: it speaks of names where the classes speak of their numbers. */
export function speakingOfNames(refusal: Refusal): Refusal {
  const named = (path: string) => path.replace(/\bnameId(s?)\b/g, 'name$1');
  return {
    ...refusal,
    ...(refusal.field === undefined ? {} : { field: named(refusal.field) }),
    ...(refusal.fields === undefined
      ? {}
      : { fields: Object.fromEntries(Object.entries(refusal.fields).map(([path, why]) => [named(path), why])) }),
  };
}
