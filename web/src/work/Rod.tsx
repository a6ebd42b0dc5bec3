/** The run of work as a rod with one bead a stage: filled = done, ringed = now, open = to come. */
import type { Schemas } from '../api/client';
import classes from './Rod.module.css';

const WIDTH = 240;
const EDGE = 12;

export function Rod({ beads }: { beads: Schemas['Bead'][] }) {
  const gap = (WIDTH - 2 * EDGE) / Math.max(1, beads.length - 1);
  const done = beads.filter((bead) => bead.status === 'done').length;
  return (
    <svg
      className={classes.rod}
      viewBox={`0 0 ${WIDTH} 24`}
      role="img"
      aria-label={`${done} of ${beads.length} stages done`}
    >
      <line x1={EDGE} x2={WIDTH - EDGE} y1={12} y2={12} />
      {beads.map((bead, n) => (
        <circle
          key={bead.title}
          cx={EDGE + n * gap}
          cy={12}
          r={bead.status === 'now' ? 8 : 6}
          data-status={bead.status}
        />
      ))}
    </svg>
  );
}
