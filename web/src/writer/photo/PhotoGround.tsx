/** The photo with what was pointed at: a tap is a point; the cross is moved by the arrow keys, and Enter is a point there. */
import { useRef } from 'react';
import classes from './Photo.module.css';
import type { Ground } from './photos';
import type { Aim, Point, Pointed } from './pointed';

interface PhotoGroundProps {
  ground: Ground;
  pointed: Pointed;
  aim: Aim;
  cross: Point;
  /** How many times larger than whole. */
  zoom: number;
  onPoint: (at: Point) => void;
}

const DOT = 0.006;

export function PhotoGround({ ground, pointed, aim, cross, zoom, onPoint }: PhotoGroundProps) {
  const own = useRef<SVGSVGElement>(null);
  const { width, height } = ground;
  const [wide, high] = [width / zoom, height / zoom];
  const left = Math.max(0, Math.min(width - wide, cross[0] - wide / 2));
  const top = Math.max(0, Math.min(height - high, cross[1] - high / 2));
  const size = Math.max(wide, high) * DOT;
  const tapped = (event: React.MouseEvent) => {
    const toPhoto = own.current?.getScreenCTM()?.inverse();
    if (!toPhoto) return;
    const at = new DOMPoint(event.clientX, event.clientY).matrixTransform(toPhoto);
    if (at.x >= 0 && at.y >= 0 && at.x <= width && at.y <= height) onPoint([at.x, at.y]);
  };
  return (
    // biome-ignore lint/a11y/useKeyWithClickEvents: the arrow keys and Enter do the same
    <svg
      ref={own}
      className={classes.ground}
      viewBox={`${left} ${top} ${wide} ${high}`}
      role="img"
      aria-label="The photo of the front"
      onClick={tapped}
    >
      <image href={ground.href} width={width} height={height} />
      {pointed.known.map(({ points: [a, b], mm }, n) => (
        <g key={n} data-now={aim.sort === 'known' && aim.n === n} className={classes.known} strokeWidth={size / 2}>
          {a && b && <line x1={a[0]} y1={a[1]} x2={b[0]} y2={b[1]} />}
          {[a, b].map((point) => point && <Dot key={point.join()} at={point} size={size} />)}
          {a && b && (
            <text x={(a[0] + b[0]) / 2} y={(a[1] + b[1]) / 2 - size * 2} fontSize={size * 4}>
              {mm ? `${mm} mm` : '? mm'}
            </text>
          )}
        </g>
      ))}
      {Object.entries(pointed.axes).map(([id, at]) => (
        <g key={id} data-now={aim.sort === 'axis' && aim.id === id} className={classes.axis} strokeWidth={size / 2}>
          <circle cx={at[0]} cy={at[1]} r={size * 3} />
          <Dot at={at} size={size} />
        </g>
      ))}
      {aim.sort === 'teeth' &&
        (pointed.teeth[aim.id] ?? []).map((at, n) => (
          <g key={at.join()} className={classes.tooth}>
            <Dot at={at} size={size} />
            <text x={at[0]} y={at[1] - size * 2} fontSize={size * 3}>
              {n + 1}
            </text>
          </g>
        ))}
      <path
        className={classes.cross}
        strokeWidth={size / 3}
        d={`M ${cross[0] - size * 6} ${cross[1]} h ${size * 12} M ${cross[0]} ${cross[1] - size * 6} v ${size * 12}`}
      />
    </svg>
  );
}

function Dot({ at, size }: { at: Point; size: number }) {
  return <circle cx={at[0]} cy={at[1]} r={size} className={classes.dot} />;
}
