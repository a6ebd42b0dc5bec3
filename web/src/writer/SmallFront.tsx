/** A family's front, small: what tells one engine from another at a glance. */
import { useQuery } from '@tanstack/react-query';
import { frontQuery } from '../engine/api';
import { Loop } from '../motion/FrontDrawing';
import classes from './SmallFront.module.css';

const LINE = 0.055; // of the larger side: thin lines of a large drawing would not be seen

export function SmallFront({ code, number }: { code: string; number: number }) {
  const { data: front } = useQuery(frontQuery(code, number));
  if (!front || front.wheels.length === 0) return <div className={classes.front} />;
  const { left_mm, right_mm, top_mm, bottom_mm } = front.box;
  const [wide, high] = [right_mm - left_mm, top_mm - bottom_mm];
  return (
    <svg
      className={classes.front}
      viewBox={`${left_mm} ${-top_mm} ${wide} ${high}`}
      style={{ fontSize: Math.max(wide, high) * LINE }}
      aria-hidden="true"
    >
      {front.loops.map((loop) => (
        <Loop key={loop.id} loop={{ ...loop, count: null }} isLit={false} />
      ))}
      {front.wheels.map((wheel) => (
        <circle key={wheel.id} cx={wheel.x_mm} cy={-wheel.y_mm} r={wheel.radius_mm} data-kind={wheel.kind} />
      ))}
    </svg>
  );
}
