/** A picture with what is drawn on it: rings and arrows with a few words, laid over it and never in it. */
import type { PointerEvent } from 'react';
import type { OnPicture } from './api';
import classes from './DrawnOn.module.css';

interface DrawnOnProps {
  src: string;
  alt: string;
  drawn: OnPicture[];
  /** Where somebody points, by shares of width and height; left out where nothing can be drawn. */
  onPoint?: ((x: number, y: number) => void) | undefined;
}

export function DrawnOn({ src, alt, drawn, onPoint }: DrawnOnProps) {
  const point = (event: PointerEvent<HTMLDivElement>) => {
    const box = event.currentTarget.getBoundingClientRect();
    onPoint?.((event.clientX - box.left) / box.width, (event.clientY - box.top) / box.height);
  };
  return (
    <div className={classes.drawn} data-takes={onPoint !== undefined} onPointerDown={onPoint && point}>
      <img src={src} alt={alt} draggable={false} />
      {drawn.map((one, n) => (
        <span
          key={n}
          className={classes[one.is_a]}
          data-left={one.x > 0.6}
          style={{ left: `${100 * one.x}%`, top: `${100 * one.y}%` }}
        >
          {one.says && <b>{one.says}</b>}
        </span>
      ))}
    </div>
  );
}
