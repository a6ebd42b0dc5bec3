/** The chosen cylinder's lobes: where each nose points, and how far its valve is open. */
import type { Schemas } from '../api/client';
import { sayClock, sayLength, type Voice } from '../app/saying';
import classes from './Marks.module.css';

export interface LobesProps {
  snapshot: Schemas['Snapshot'] | undefined;
  cylinder: number;
  voice: Voice;
}

export function Lobes({ snapshot, cylinder, voice }: LobesProps) {
  const lobes = snapshot?.lobes.filter((lobe) => lobe.cylinder === cylinder) ?? [];
  if (lobes.length === 0) return null;
  return (
    <table className={classes.marks}>
      <thead>
        <tr>
          <th>Cylinder {cylinder}</th>
          <th>nose at</th>
          <th>valve</th>
        </tr>
      </thead>
      <tbody>
        {lobes.map((lobe) => (
          <tr key={`${lobe.camshaft} ${lobe.valve} ${lobe.place}`}>
            <td>
              {lobe.valve}
              {lobe.place && `, ${lobe.place}`}
            </td>
            <td>{lobe.clock_deg == null ? 'not known' : sayClock(lobe.clock_deg, voice.seenFrom)}</td>
            <td>
              <b>{lifted(lobe.lift_mm, voice)}</b>
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

function lifted(lift: number | null, voice: Voice): string {
  if (lift == null) return 'not known: measure or import';
  return lift > 0 ? `open ${sayLength(lift, voice.factor)}` : 'shut';
}
