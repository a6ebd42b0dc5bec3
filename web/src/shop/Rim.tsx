/** A quiet piece of a degree wheel's rim, beside what stands at the door. */
import classes from './SignIn.module.css';

export function Rim() {
  const ticks = Array.from({ length: 72 }, (_, n) => n * 5);
  return (
    <svg className={classes.rim} viewBox="-200 -200 400 400" aria-hidden="true">
      <circle r="190" />
      <circle r="120" />
      {ticks.map((deg) => (
        <line
          key={deg}
          y1={-190}
          y2={deg % 30 === 0 ? -164 : deg % 10 === 0 ? -174 : -180}
          transform={`rotate(${deg})`}
        />
      ))}
    </svg>
  );
}
