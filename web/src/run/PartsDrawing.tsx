/** The places of what is fitted, by number and letter: caps, lifters, rockers each back where they came from. */
import type { Schemas } from '../api/client';
import classes from './RunDrawing.module.css';

type Part = Schemas['PartPlaces'];

export function PartsDrawing({ parts }: { parts: Part[] }) {
  return parts.map((part) => (
    <section key={part.name} className={classes.parts} aria-label={`Places of ${part.name}`}>
      <header>
        <span>{part.name}</span>
        <span>{part.returns ? 'each back in its own' : `${part.places.length} places`}</span>
      </header>
      {rowsOf(part.places).map(([head, places]) => (
        <p key={head}>
          <b>{head}</b>
          {places.map((place) => (
            <i key={place}>{place}</i>
          ))}
        </p>
      ))}
    </section>
  ));
}

/** Places that begin alike stand in one row, as they do on the head: “1 intake front” in the row of 1. */
function rowsOf(places: string[]): [head: string, rest: string[]][] {
  const rows = new Map<string, string[]>();
  for (const place of places) {
    const [head = '', ...rest] = place.split(' ');
    rows.set(head, [...(rows.get(head) ?? []), rest.join(' ') || head]);
  }
  const alone = [...rows.values()].every((row) => row.length === 1);
  return alone ? [['', places]] : [...rows];
}
