/** A clock face as seen from the front: where a mark stands, set by the arrow keys or the two buttons, or no place known. */
import { UnstyledButton } from '@mantine/core';
import classes from './ClockFace.module.css';
import { moved, placeIn, withPlace } from './clock';

interface ClockFaceProps {
  line: string;
  onLine: (line: string) => void;
}

const HOURS = Array.from({ length: 12 }, (_, hour) => hour);
const HALF_DEG = 15;

export function ClockFace({ line, onLine }: ClockFaceProps) {
  const at = placeIn(line);
  return (
    <div className={classes.face}>
      <svg viewBox="-60 -60 120 120" role="img" aria-label="Where the mark stands, seen from the front">
        <circle r={46} className={classes.ring} />
        {HOURS.map((hour) => (
          <line
            key={hour}
            y1={-46}
            y2={hour % 3 ? -41 : -37}
            transform={`rotate(${hour * 30})`}
            className={classes.tick}
          />
        ))}
        {at === null ? (
          <text className={classes.none}>no place</text>
        ) : (
          <g transform={`rotate(${at * HALF_DEG})`}>
            <line y2={-40} className={classes.hand} />
            <circle cy={-46} r={7} className={classes.mark} />
          </g>
        )}
      </svg>
      <div>
        <UnstyledButton aria-label="Half an hour back" onClick={() => onLine(moved(line, -1))}>
          ←
        </UnstyledButton>
        <UnstyledButton aria-label="Half an hour on" onClick={() => onLine(moved(line, 1))}>
          →
        </UnstyledButton>
        <UnstyledButton onClick={() => onLine(withPlace(line, null))}>no place known</UnstyledButton>
      </div>
    </div>
  );
}
