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
  const hand = useRef<SVGLineElement>(null);
  const figure = useRef<SVGTextElement>(null);
  const other = useRef<HTMLElement>(null);
  useEffect(() => {
    let frame = 0;
    let before = '';
    const draw = () => {
      const reading = latest.current;
      const value = reading[shows] ?? 0;
      const text = shows === 'value' ? (reading.text ?? '0') : String(Math.round(value));
      const share = Math.min(Math.max(value / (target * OVER), 0), 1);
      hand.current?.setAttribute('transform', `rotate(${(share * SWEEP_DEG - SWEEP_DEG / 2).toFixed(1)})`);
      if (text !== before && figure.current) figure.current.textContent = text;
      before = text;
      const beside = shows === 'value' ? `${Math.round(reading.angle_deg ?? 0)}°` : `${reading.text ?? '0'} N·m`;
      if (other.current) other.current.textContent = reading.trouble || beside;
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
      <svg viewBox="-60 -58 120 92" role="img" aria-label="Live needle">
        <path className={classes.scale} d={`M ${at(0)} A 50 50 0 1 1 ${at(1)}`} />
        <path className={classes.goal} d={`M ${at(1 / OVER - 0.04)} A 50 50 0 0 1 ${at(1 / OVER + 0.04)}`} />
        <line ref={hand} className={classes.hand} x1={0} y1={8} x2={0} y2={-46} />
        <text ref={figure} className={classes.figure} textAnchor="middle" y={30}>
          0
        </text>
      </svg>
      <p>
        <span>{unit}</span> <b ref={other} />
      </p>
    </div>
  );
}
