/** Everything temporary or unfinished, never more than one glance away; each says what it holds back. */
import type { Schemas } from '../api/client';
import classes from './LooseEnds.module.css';

export function LooseEnds({ ends }: { ends: Schemas['LooseEndView'][] }) {
  return (
    <section className={classes.ends} aria-label="Loose ends">
      <h2>Loose ends · {ends.length}</h2>
      {ends.length === 0 && <p>Nothing temporary is in the engine.</p>}
      {ends.map((end) => (
        <div key={end.title} className={classes.end} data-stops={end.stops_turning}>
          <b>{end.title}</b>
          <span>holds back: {end.holds_back}</span>
        </div>
      ))}
    </section>
  );
}
