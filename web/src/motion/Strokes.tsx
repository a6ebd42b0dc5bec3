/** All cylinders as a strip of strokes over the 720 degrees of a cycle, with the crank's place on it. */
import { type PointerEvent, useRef } from 'react';
import type { Schemas } from '../api/client';
import classes from './Strokes.module.css';
import { inCycle, type Turning, useAngle } from './turning';

const CYCLE = 720;

export interface StrokesProps {
  frames: Schemas['TwinFrames'];
  chosen: number;
  onChoose: (cylinder: number) => void;
  turning: Turning;
}

export function Strokes({ frames, chosen, onChoose, turning }: StrokesProps) {
  const cursor = useRef<HTMLDivElement>(null);
  const field = useRef<HTMLDivElement>(null);
  useAngle(turning, (deg: number) => {
    if (cursor.current) cursor.current.style.transform = `translateX(${((100 * inCycle(deg)) / CYCLE).toFixed(3)}%)`;
  });
  const turnHere = (event: PointerEvent) => {
    const box = field.current?.getBoundingClientRect();
    if (box) turning.turnTo(Math.round((CYCLE * (event.clientX - box.left)) / box.width));
  };
  return (
    <section className={classes.strokes} aria-label="Strokes of all cylinders">
      <div className={classes.names}>
        {frames.cylinders.map(({ cylinder, bank }) => (
          <button
            key={cylinder}
            type="button"
            aria-pressed={cylinder === chosen}
            aria-label={`Cylinder ${cylinder}, ${bank}`}
            onClick={() => onChoose(cylinder)}
          >
            {cylinder}
          </button>
        ))}
      </div>
      <div ref={field} className={classes.field} onPointerDown={turnHere}>
        {frames.cylinders.map(({ cylinder, strokes }) => (
          <div key={cylinder} className={classes.row} data-chosen={cylinder === chosen}>
            {strokes.map((one) => (
              <span
                key={one.from_deg}
                data-stroke={one.stroke}
                style={{
                  left: `${(100 * one.from_deg) / CYCLE}%`,
                  width: `${(100 * (one.to_deg - one.from_deg)) / CYCLE}%`,
                }}
              >
                {one.to_deg - one.from_deg >= 90 ? one.stroke : ''}
              </span>
            ))}
          </div>
        ))}
        <div ref={cursor} className={classes.cursor} aria-hidden="true">
          <i />
        </div>
      </div>
    </section>
  );
}
