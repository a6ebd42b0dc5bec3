/** The house mark: a ring and the name. */
import classes from './Mark.module.css';

export function Mark() {
  return (
    <span className={classes.mark}>
      <svg width="12" height="12" viewBox="0 0 12 12" aria-hidden="true">
        <circle cx="6" cy="6" r="4" fill="none" stroke="var(--blue)" strokeWidth="3.4" />
      </svg>
      gurvo
    </span>
  );
}
