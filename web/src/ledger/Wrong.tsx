/** The refusal, beside the input it is about. */
import type { Refusal } from './contract';

export function Wrong({ wrong }: { wrong: Refusal | null }) {
  if (!wrong) return null;
  return (
    <p role="alert" id="wrong">
      {wrong.sentence}
    </p>
  );
}
