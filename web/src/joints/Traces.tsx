/** The traces of a joint's pulls, laid over each other; one that stands apart in ochre. */
import { useQuery } from '@tanstack/react-query';
import { jointTracesQuery } from './api';
import classes from './JointDrawing.module.css';

const WIDE = 260;
const HIGH = 120;

interface TracesProps {
  serial: string;
  step: string;
  entries: number;
  stage: number | undefined;
}

export function Traces({ serial, step, entries, stage }: TracesProps) {
  const all = useQuery({ ...jointTracesQuery(serial, step, entries), placeholderData: (before) => before }).data ?? [];
  const lines = all.filter((one) => stage === undefined || one.stage === stage);
  if (lines.length === 0) return null;
  const right = Math.max(...lines.map((one) => one.angle_deg.at(-1) ?? 0), 1);
  const top = Math.max(...lines.flatMap((one) => one.torque_nm), 1);
  const path = (angles: number[], torques: number[]) =>
    angles
      .map((angle, n) => {
        const x = (angle / right) * WIDE;
        const y = HIGH - ((torques[n] ?? 0) / top) * (HIGH - 8);
        return `${n === 0 ? 'M' : 'L'} ${x.toFixed(1)} ${y.toFixed(1)}`;
      })
      .join(' ');
  const flags = lines.filter((one) => one.flags.length > 0);
  return (
    <section className={classes.traces} aria-label="Traces">
      <header>
        <span>Torque over angle</span>
        <a href={`/api/engines/${serial}/joints/${step}/traces.csv`}>CSV</a>
      </header>
      <svg viewBox={`0 0 ${WIDE} ${HIGH + 14}`} role="img" aria-label={`${lines.length} traces`}>
        <line className={classes.axis} x1={0} x2={WIDE} y1={HIGH} y2={HIGH} />
        {lines.map((one) => (
          <path
            key={`${one.stage}.${one.turn}.${one.fastener}`}
            className={classes.trace}
            data-apart={one.is_apart}
            d={path(one.angle_deg, one.torque_nm)}
          />
        ))}
        <text className={classes.tick} x={WIDE} y={HIGH + 12} textAnchor="end">
          {Math.round(right)}°
        </text>
        <text className={classes.tick} x={0} y={10}>
          {Math.round(top)} N·m
        </text>
      </svg>
      {flags.map((one) => (
        <p key={`${one.stage}.${one.fastener}`}>
          bolt {one.fastener}: {one.flags.join('; ')}
        </p>
      ))}
    </section>
  );
}
