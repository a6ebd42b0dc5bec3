/** Marks, keys and dowels: now, at the timing position, one turn later. What decides is told apart from what only guides. */
import type { Schemas } from '../api/client';
import { type SeenFrom, sayClock } from '../app/saying';
import classes from './Marks.module.css';

export function Marks({ snapshot, seenFrom }: { snapshot: Schemas['Snapshot'] | undefined; seenFrom: SeenFrom }) {
  if (!snapshot) return <p className={classes.empty}>Working out where the marks stand</p>;
  if (snapshot.marks.length === 0) return <p className={classes.empty}>The document names no marks.</p>;
  return (
    <table className={classes.marks}>
      <thead>
        <tr>
          <th>Mark</th>
          <th>now</th>
          <th>at timing</th>
          <th>a turn later</th>
        </tr>
      </thead>
      <tbody>
        {snapshot.marks.map((mark) => (
          <tr key={mark.id} data-met={mark.met}>
            <td>
              {mark.name}
              <small>{about(mark)}</small>
            </td>
            <td>
              <b>{sayClock(mark.now_deg, seenFrom)}</b>
              {mark.met && <small>in place</small>}
            </td>
            <td>{sayClock(mark.timing_deg, seenFrom)}</td>
            <td>{sayClock(mark.turn_later_deg, seenFrom)}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

function about(mark: Schemas['MarkSnapshot']): string {
  if (mark.kind !== 'mark') return mark.kind;
  return `${mark.decides ? 'decides' : 'guides'}${mark.meets ? ` · meets ${mark.meets}` : ''}`;
}
