/** What the form of one place needs to know of JSON Schema: which of several kinds a value is, and where faults belong. */
import { Validator } from '@cfworker/json-schema';
import type { ErrorSchema, ValidatorType } from '@rjsf/utils';

/** Tells kinds apart; whether a value is right is the server's to say. Nothing is compiled while it runs. */
export const KINDS: ValidatorType = {
  isValid: (schema, value) => new Validator(schema as object, '7').validate(value).valid,
  rawValidation: () => ({ errors: [] }),
  validateFormData: () => ({ errors: [], errorSchema: {} }),
};

interface Fault {
  path: string;
  sentence: string;
}

/** The faults of one place, each at its field. */
export function faultsAt(place: string, faults: Fault[]): ErrorSchema {
  const found: ErrorSchema = {};
  for (const { path, sentence } of faults) {
    const inside =
      place === '' ? path : path === place ? '' : path.startsWith(`${place}.`) ? path.slice(place.length + 1) : null;
    if (inside === null) continue;
    let at = found as Record<string, unknown>;
    for (const key of inside === '' ? [] : inside.split('.')) {
      at[key] ??= {};
      at = at[key] as Record<string, unknown>;
    }
    at.__errors = [...((at.__errors as string[] | undefined) ?? []), sentence];
  }
  return found;
}

/** What is typed is kept by the button on top, or Enter. */
export const LOOK = { 'ui:submitButtonOptions': { norender: true } };
