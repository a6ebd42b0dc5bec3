/** A live needle between nothing and a little over the target. It is moved by hand, frame by frame, and never drawn anew. */
import { useEffect, useRef } from 'react';
import type { Reading } from './live';
import classes from './Needle.module.css';

const SWEEP_DEG = 240;
const OVER = 1.25;

interface NeedleProps {
  /** Where the target is, in what the needle shows. */
  target: number;
  unit: string;
  /** Which of a reading's figures it shows. */
  shows: 'value' | 'angle_deg';
  /** The newest reading; looked at once a frame. */
  latest: { current: Reading };
}

export function Needle({ target, unit, shows, latest }: NeedleProps) {
  const hand = useRef<HTMLDivElement>(null);
  const figure = useRef<HTMLDivElement>(null);
  const other = useRef<HTMLElement>(null);
  useEffect(() => {
    let frame = 0;
    let before = '';
    let besideBefore = '';
    const draw = () => {
      const reading = latest.current;
      const value = reading[shows] ?? 0;
      const text = shows === 'value' ? (reading.text ?? '0') : String(Math.round(value));
      const share = Math.min(Math.max(value / (target * OVER), 0), 1);
      // a layer of its own is turned: nothing of the page is laid out or painted anew for it
      if (hand.current) hand.current.style.transform = `rotate(${(share * SWEEP_DEG - SWEEP_DEG / 2).toFixed(1)}deg)`;
      if (text !== before && figure.current) figure.current.textContent = text;
      before = text;
      const also = shows === 'value' ? `${Math.round(reading.angle_deg ?? 0)}°` : `${reading.text ?? '0'} N·m`;
      const beside = reading.trouble || also;
      if (beside !== besideBefore && other.current) other.current.textContent = beside;
      besideBefore = beside;
      frame = requestAnimationFrame(draw);
    };
    frame = requestAnimationFrame(draw);
    return () => cancelAnimationFrame(frame);
  }, [latest, shows, target]);
  const at = (share: number) => {
    const turned = ((share * SWEEP_DEG - SWEEP_DEG / 2) * Math.PI) / 180;
    return `${(50 * Math.sin(turned)).toFixed(1)} ${(-50 * Math.cos(turned)).toFixed(1)}`;
  };
  return (
    <div className={classes.live}>
      <div className={classes.face} role="img" aria-label="Live needle">
        <svg viewBox="-60 -58 120 92" aria-hidden>
          <path className={classes.scale} d={`M ${at(0)} A 50 50 0 1 1 ${at(1)}`} />
          <path className={classes.goal} d={`M ${at(1 / OVER - 0.04)} A 50 50 0 0 1 ${at(1 / OVER + 0.04)}`} />
        </svg>
        <div ref={hand} className={classes.hand} />
        <div ref={figure} className={classes.figure}>
          0
        </div>
      </div>
      <p>
        <span>{unit}</span> <b ref={other} />
      </p>
    </div>
  );
}
