/** A lobe's lift over cam degrees from the nose, with points that look mis-read. */
import { scaleLinear } from 'd3-scale';
import { line } from 'd3-shape';
import type { Schemas } from '../api/client';
import classes from './FamilyPage.module.css';

const WIDTH = 400;
const HEIGHT = 150;
const EDGE = 22;

export interface LobeDrawingProps {
  curve: Schemas['LobeCurve'];
  suspects?: Schemas['Suspect'][];
  /** Dots where figures were read. */
  dots?: boolean;
}

export function LobeDrawing({ curve, suspects = [], dots = false }: LobeDrawingProps) {
  const points = curve.cam_deg.map((deg, n) => ({ deg, lift: curve.lobe_lift_mm[n] ?? 0 }));
  const most = Math.max(...curve.lobe_lift_mm);
  const x = scaleLinear()
    .domain([curve.cam_deg[0] ?? 0, curve.cam_deg.at(-1) ?? 0])
    .range([EDGE, WIDTH - EDGE]);
  const y = scaleLinear()
    .domain([Math.min(0, ...curve.lobe_lift_mm), most])
    .range([HEIGHT - EDGE, 8]);
  const path = line<(typeof points)[number]>()
    .x((point) => x(point.deg))
    .y((point) => y(point.lift))(points);
  return (
    <figure style={{ margin: 0 }}>
      <svg viewBox={`0 0 ${WIDTH} ${HEIGHT}`} className={classes.lobe} role="img" aria-label={`Lift of ${curve.id}`}>
        {x.ticks(7).map((deg) => (
          <g key={deg}>
            <line x1={x(deg)} x2={x(deg)} y1={8} y2={HEIGHT - EDGE} />
            <text x={x(deg)} y={HEIGHT - 6}>
              {deg}°
            </text>
          </g>
        ))}
        <path d={path ?? ''} />
        {dots && points.map((point) => <circle key={point.deg} cx={x(point.deg)} cy={y(point.lift)} r={1.6} />)}
        {suspects.map((suspect) => (
          <circle key={suspect.line} cx={x(suspect.cam_deg)} cy={y(suspect.lobe_lift_mm)} r={6} data-suspect />
        ))}
      </svg>
      <figcaption className={classes.caption}>
        {curve.id}: lifts {most.toFixed(2)} mm at the lobe, cam degrees from the nose
      </figcaption>
    </figure>
  );
}
