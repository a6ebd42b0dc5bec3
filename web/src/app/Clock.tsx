/** Times that run: what is left of them, by the second. */
import { useEffect, useState } from 'react';
import classes from './Clock.module.css';

/** The time, by the second while something runs by it. */
export function useSeconds(isRunning: boolean): number {
  const [now, setNow] = useState(Date.now);
  useEffect(() => {
    if (!isRunning) return;
    const timer = setInterval(() => setNow(Date.now()), 1000);
    return () => clearInterval(timer);
  }, [isRunning]);
  return now;
}

/** What is left of a working or curing time. */
export function Clock({ endsAt, now }: { endsAt: string; now: number }) {
  const left = Math.round((Date.parse(endsAt) - now) / 1000);
  const minutes = Math.floor(Math.abs(left) / 60);
  const text = `${minutes >= 60 ? `${Math.floor(minutes / 60)} h ${minutes % 60} min` : `${minutes}:${String(Math.abs(left) % 60).padStart(2, '0')}`}`;
  return (
    <em className={classes.clock} data-over={left < 0} role="timer">
      {left < 0 ? `over by ${text}` : `${text} left`}
    </em>
  );
}
