/** The fasteners where they stand, in the order of the pulls. Distances are the document's; only the picture's size is chosen here. */
import type { Schemas } from '../api/client';
import classes from './SpotsDrawing.module.css';

type Joint = Schemas['JointView'];
type Spot = Joint['spots'][number];

const WIDE = 440;
const HIGH = 230;
const RING = 18;
const GAP_DEG = 16;

interface SpotsDrawingProps {
  joint: Joint;
  now: string | undefined;
  /** Ids in an order that is being set, as far as it is; each then has its number in it. */
  order?: string[];
  onTap?: (id: string) => void;
}

export function SpotsDrawing({ joint, now, order, onTap }: SpotsDrawingProps) {
  const place = placing(joint.spots);
  const lone = joint.spots.length === 1;
  return (
    <svg
      className={classes.spots}
      viewBox={`${-WIDE / 2 - 34} ${-HIGH / 2 - 34} ${WIDE + 68} ${HIGH + 68}`}
      role="img"
      aria-label={`${joint.name}: ${joint.spots.length} fasteners`}
    >
      <rect className={classes.body} {...frame(joint.spots.map(place))} rx={8} />
      {(order ? [] : joint.spots.slice(1)).map((spot, n) => {
        const before = joint.spots[n];
        if (!before) return null;
        const [from, to] = [place(before), place(spot)];
        return <line key={spot.id} className={classes.order} x1={from.x} y1={from.y} x2={to.x} y2={to.y} />;
      })}
      {joint.spots.map((spot) => (
        // biome-ignore lint/a11y/noStaticElementInteractions: an order is written in its field too
        <g
          key={spot.id}
          transform={`translate(${place(spot).x} ${place(spot).y})`}
          data-spot={spot.id}
          data-tap={onTap !== undefined}
          onClick={onTap && (() => onTap(spot.id))}
        >
          {(now === spot.id || (spot.is_now && !now)) && <circle className={classes.now} r={RING + 9} />}
          <circle className={classes.head} r={RING} />
          {spot.done.map((done, n) => (
            <path
              key={arc(n, spot.done.length)}
              className={classes.arc}
              data-done={done}
              data-flagged={spot.is_flagged}
              d={arc(n, spot.done.length)}
            />
          ))}
          <text className={classes.number} data-now={now === spot.id} textAnchor="middle" dy="0.35em">
            {lone ? '' : order ? nth(order, spot.id) : spot.id}
          </text>
          {spot.is_loaded && <path className={classes.loaded} d="M -6 32 L 0 24 L 6 32 Z" />}
        </g>
      ))}
    </svg>
  );
}

function nth(order: string[], id: string): number | string {
  const n = order.indexOf(id);
  return n < 0 ? '' : n + 1;
}

/** Fits the places into the picture, both axes alike. */
function placing(spots: Spot[]) {
  const xs = spots.map((spot) => spot.x_mm);
  const ys = spots.map((spot) => spot.y_mm);
  const middle = { x: (Math.min(...xs) + Math.max(...xs)) / 2, y: (Math.min(...ys) + Math.max(...ys)) / 2 };
  const [wide, high] = [Math.max(...xs) - Math.min(...xs), Math.max(...ys) - Math.min(...ys)];
  const scale = Math.min(WIDE / Math.max(wide, 1), HIGH / Math.max(high, 1), 3);
  return (spot: Spot) => ({ x: (spot.x_mm - middle.x) * scale, y: (spot.y_mm - middle.y) * scale });
}

function frame(places: { x: number; y: number }[]) {
  const xs = places.map((one) => one.x);
  const ys = places.map((one) => one.y);
  const [x, y] = [Math.min(...xs) - RING - 10, Math.min(...ys) - RING - 10];
  return { x, y, width: Math.max(...xs) - x + RING + 10, height: Math.max(...ys) - y + RING + 10 };
}

/** The arc of one stage, clockwise from the top. */
function arc(n: number, count: number): string {
  const each = 360 / count;
  const gap = count > 1 ? GAP_DEG : 0.01;
  const at = (degrees: number) => {
    const turned = (degrees * Math.PI) / 180;
    return `${(RING * Math.sin(turned)).toFixed(2)} ${(-RING * Math.cos(turned)).toFixed(2)}`;
  };
  const [from, to] = [n * each + gap / 2, (n + 1) * each - gap / 2];
  return `M ${at(from)} A ${RING} ${RING} 0 ${to - from > 180 ? 1 : 0} 1 ${at(to)}`;
}
