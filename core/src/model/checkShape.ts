import type { TSchema } from '@sinclair/typebox';
import Ajv, { type ErrorObject, type Options, type ValidateFunction } from 'ajv';
import { once } from '../units';
import type { Checked, Problem } from './problem';

// compiled when it is first asked for: compiling writes code, which a browser under our content policy does not allow
const quick = createCompiler({});
const telling = createCompiler({ allErrors: true, verbose: true });
/** no more are told of at once */
export const MOST_PROBLEMS = 20;

/** Does this value have the shape that a schema asks for? At most 20 problems are listed, deepest (most telling) first. at: where the value stands. */
export function checkShape<T>(schema: TSchema, value: unknown, at = ''): Checked<T> {
  // nearly everything passes: what is wrong is looked for only where something is
  if (quick(schema)(value)) return { ok: true, value: value as T };
  const validate = telling(schema);
  validate(value);
  const seen = new Set<string>();
  const problems: Problem[] = [];
  for (const error of validate.errors ?? []) {
    const problem = toProblem(at === '' ? error : { ...error, instancePath: at + error.instancePath });
    if (problem === null || seen.has(problem.path + problem.message)) continue;
    seen.add(problem.path + problem.message);
    problems.push(problem);
  }
  problems.sort((a, b) => b.path.split('/').length - a.path.split('/').length);
  return { ok: false, problems: problems.slice(0, MOST_PROBLEMS) };
}

/** Compiles a schema now, so that the first value that is checked does not wait for it. */
export const readyShape = (schema: TSchema): void => void quick(schema);

/** One instance for all schemas: each new one reads the schema of schemas again, which takes longer than most of ours. */
function createCompiler(options: Options): (schema: TSchema) => ValidateFunction {
  // code that is not made smaller checks as fast and compiles in half of the time
  const ajv = once(() => new Ajv({ strict: false, discriminator: true, code: { optimize: false }, ...options }));
  // an instance keeps what it compiled by the schema itself
  return (schema) => ajv().compile(schema);
}

function toProblem(error: ErrorObject): Problem | null {
  const { keyword, instancePath: path, params, data } = error;
  switch (keyword) {
    case 'anyOf': {
      const allowed = listLiterals(error.parentSchema?.anyOf);
      return allowed
        ? { path, message: `expected one of ${allowed}, got ${toShort(data)}` }
        : { path, message: `expected ${describe(error.parentSchema?.anyOf)}, got ${toShort(data)}` };
    }
    case 'const':
      return path.split('/').length <= 2
        ? { path, message: `expected ${JSON.stringify(params.allowedValue)}, got ${toShort(data)}` }
        : null;
    case 'enum':
      return { path, message: `expected one of ${toWords(params.allowedValues as unknown[])}, got ${toShort(data)}` };
    case 'discriminator': {
      const shapes = (error.parentSchema?.oneOf ?? []) as TSchema[];
      const kinds = shapes.flatMap((one) => listKinds((one.properties as Record<string, TSchema>)[params.tag as string]!));
      return { path: `${path}/${params.tag}`, message: `expected one of ${toWords(kinds)}, got ${toShort(params.tagValue)}` };
    }
    case 'required':
      return { path: `${path}/${params.missingProperty}`, message: 'expected a value, got nothing: the field is missing' };
    case 'additionalProperties':
      return {
        path: `${path}/${params.additionalProperty}`,
        message: 'expected no such field here: the name is unknown or not a valid id',
      };
    case 'type':
      return { path, message: `expected ${params.type}, got ${toShort(data)}` };
    default:
      return { path, message: `${error.message ?? keyword}, got ${toShort(data)}` };
  }
}

const toWords = (values: readonly unknown[]) => values.map((one) => JSON.stringify(one)).join(', ');

/** Values that a field of one of several shapes tells them apart by. */
export const listKinds = (field: TSchema): unknown[] => (field.const === undefined ? ((field.enum ?? []) as unknown[]) : [field.const]);

function listLiterals(anyOf: unknown): string | null {
  if (!Array.isArray(anyOf) || !anyOf.every((one) => 'const' in one)) return null;
  return anyOf.map((one) => JSON.stringify(one.const)).join(', ');
}

function describe(anyOf: unknown): string {
  return Array.isArray(anyOf) ? anyOf.map((one) => one.type ?? JSON.stringify(one.const)).join(' or ') : 'another value';
}

function toShort(data: unknown): string {
  if (data === undefined) return 'nothing';
  const text = JSON.stringify(data) ?? String(data);
  return text.length > 60 ? `${text.slice(0, 57)}…` : text;
}
