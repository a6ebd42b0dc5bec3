/** A verdict: always a word as well as a colour. */
import type { Schemas } from '../api/client';
import classes from './Verdict.module.css';

export type VerdictWord = NonNullable<Schemas['CamFigures']['verdict']>;

const LOOK: Record<VerdictWord, string | undefined> = {
  in: classes.in,
  out: classes.out,
  "can't tell": classes.tell,
  'no limit known': classes.open,
};

export function Verdict({ verdict }: { verdict: VerdictWord }) {
  return <span className={`${classes.verdict} ${LOOK[verdict]}`}>{verdict}</span>;
}
