/** The same figure of all siblings on one line, the window behind them; one that stands apart is named. */
import type { Schemas } from '../api/client';
import classes from './JointDrawing.module.css';

type Joint = Schemas['JointView'];
const WIDE = 250;

export function Siblings({ joint }: { joint: Joint }) {
  const values = joint.siblings.map((one) => one.value);
  const ends = [...values, ...[joint.least, joint.most].filter((limit) => limit != null)];
  const [low, high] = [Math.min(...ends), Math.max(...ends)];
  const margin = Math.max((high - low) * 0.18, high * 0.02, 0.5);
  const [begin, end] = [low - margin, high + margin];
  const x = (value: number) => 6 + ((value - begin) / (end - begin)) * (WIDE - 12);
  const ticks = steps(begin, end);
  return (
    <section className={classes.siblings} aria-label={joint.siblings_are}>
      <header>
        <span>{joint.siblings_are}, so far</span>
        <span>{joint.unit}</span>
      </header>
      <svg viewBox={`0 0 ${WIDE} 66`} role="img" aria-label={`${values.length} values`}>
        {joint.least != null && joint.most != null && (
          <rect
            className={classes.window}
            x={x(joint.least)}
            y={22}
            width={x(joint.most) - x(joint.least)}
            height={22}
          />
        )}
        <line className={classes.axis} x1={6} x2={WIDE - 6} y1={33} y2={33} />
        {ticks.map((tick) => (
          <text key={tick} className={classes.tick} x={x(tick)} y={60} textAnchor="middle">
            {tick}
          </text>
        ))}
        {joint.siblings.map((one) => (
          <g key={one.fastener}>
            <circle className={classes.dot} data-apart={one.is_apart} cx={x(one.value)} cy={33} r={5.5} />
            {one.is_apart && (
              <text
                className={classes.apart}
                x={Math.min(Math.max(x(one.value), 22), WIDE - 22)}
                y={14}
                textAnchor="middle"
              >
                bolt {one.fastener}
              </text>
            )}
          </g>
        ))}
      </svg>
      <p className={classes.tell}>{joint.siblings_tell}</p>
    </section>
  );
}

/** Round figures along an axis, five or six of them. */
function steps(begin: number, end: number): number[] {
  const rough = (end - begin) / 5;
  const size = 10 ** Math.floor(Math.log10(rough));
  const step = [1, 2, 5, 10].map((times) => times * size).find((one) => one >= rough) ?? rough;
  const first = Math.ceil(begin / step) * step;
  const count = Math.floor((end - first) / step) + 1;
  return Array.from({ length: count }, (_, n) => Number((first + n * step).toPrecision(6)));
}
