/** What an entry changed, brought together with what the page had: steps and lines that stayed as they were are not sent again. */
import type { Schemas } from '../api/client';

type Bench = Schemas['Bench'];

/** The answer to an entry: all of the bench, or what changed of the one the page had when it was sent. */
export type Answered = Bench | Schemas['BenchChange'];

export function benchAfter(had: Bench | undefined, answered: Answered): Bench | undefined {
  if (!('kind' in answered)) return answered;
  if (!had) return undefined;
  const { kind: _, order, ...change } = answered;
  const steps = new Map([...had.state.steps, ...change.state.steps].map((step) => [step.key, step]));
  const keys = order.length > 0 ? order : had.state.steps.map((step) => step.key);
  const struck = new Map(change.tape.map((line) => [line.id, line]));
  const kept = had.tape.map((line) => struck.get(line.id) ?? line);
  const newest = had.tape[0]?.seq ?? 0;
  return {
    ...change,
    state: { ...change.state, steps: keys.flatMap((key) => steps.get(key) ?? []) },
    tape: [...change.tape.filter((line) => line.seq > newest), ...kept],
  };
}
