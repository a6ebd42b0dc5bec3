/** What can hurt, said beside the drawing of whatever is asked. */
import classes from './Cautions.module.css';
import type { Question } from './contract';

export function Cautions({ question }: { question: Question | undefined }) {
  if (!question || !('cautions' in question)) return null;
  return question.cautions.map((one) => (
    <p key={one} className={classes.caution}>
      {one}
    </p>
  ));
}
