/** A lift profile as its table has it: lobe lift over cam degrees from the nose. */
import { scaleLinear } from 'd3-scale';
import { line } from 'd3-shape';
import type { Schemas } from '../api/client';
import classes from './FamilyPage.module.css';

const WIDTH = 400;
const HEIGHT = 150;
const EDGE = 22;

export function LobeDrawing({ profile }: { profile: Schemas['LiftProfile'] }) {
  const points = profile.cam_deg.map((deg, n) => ({ deg, lift: profile.lobe_lift_mm[n] ?? 0 }));
  const most = Math.max(...profile.lobe_lift_mm);
  const x = scaleLinear()
    .domain([profile.cam_deg[0] ?? 0, profile.cam_deg.at(-1) ?? 0])
    .range([EDGE, WIDTH - EDGE]);
  const y = scaleLinear()
    .domain([0, most])
    .range([HEIGHT - EDGE, 8]);
  const path = line<(typeof points)[number]>()
    .x((point) => x(point.deg))
    .y((point) => y(point.lift))(points);
  return (
    <figure style={{ margin: 0 }}>
      <svg viewBox={`0 0 ${WIDTH} ${HEIGHT}`} className={classes.lobe} role="img" aria-label={`Lift of ${profile.id}`}>
        {x.ticks(7).map((deg) => (
          <g key={deg}>
            <line x1={x(deg)} x2={x(deg)} y1={8} y2={HEIGHT - EDGE} />
            <text x={x(deg)} y={HEIGHT - 6}>
              {deg}°
            </text>
          </g>
        ))}
        <path d={path ?? ''} />
      </svg>
      <figcaption className={classes.caption}>
        {profile.id}: lifts {most.toFixed(2)} mm at the lobe, cam degrees from the nose
      </figcaption>
    </figure>
  );
}
