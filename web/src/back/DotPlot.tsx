/** Every figure a dot, by place, gauge or month, between its limits; one engine among them stands out. */
import { scaleLinear } from 'd3-scale';
import {
  CartesianGrid,
  ReferenceLine,
  ResponsiveContainer,
  Scatter,
  ScatterChart,
  Tooltip,
  XAxis,
  YAxis,
} from 'recharts';
import type { Schemas } from '../api/client';
import { type By, groupsOf, inUnit } from './figures';
import classes from './LookingBack.module.css';

type Point = Schemas['BackPoint'];
interface Dot extends Point {
  x: number;
}

/** Engines beside each other, so that equal figures do not hide one another. */
const APART = 0.05;

export interface DotPlotProps {
  series: Schemas['BackSeries'];
  by: By;
  serial: string;
}

export function DotPlot({ series, by, serial }: DotPlotProps) {
  const names = groupsOf(series, by).map((group) => group.name);
  const engines = [...new Set(series.points.map((point) => point.serial))];
  const apart = (own: string) => ((engines.indexOf(own) % 9) - 4) * APART;
  const dots: Dot[] = series.points.map((point) => ({ ...point, x: names.indexOf(point[by]) + apart(point.serial) }));
  const isIn = engines.includes(serial);
  const all = [...dots.map((dot) => dot.value), ...[series.least, series.most].filter((one) => one !== null)];
  const room = (Math.max(...all) - Math.min(...all)) * 0.04 || 0.01;
  const scale = scaleLinear([Math.min(...all) - room, Math.max(...all) + room], [0, 1]).nice(5);
  const said = (value: number) => inUnit(value, series.unit);
  return (
    <figure className={classes.plot}>
      <ResponsiveContainer width="100%" height={330}>
        <ScatterChart margin={{ top: 10, right: 20, bottom: 30, left: 16 }}>
          <CartesianGrid stroke="var(--hair)" vertical={false} />
          <XAxis
            dataKey="x"
            type="number"
            domain={[-0.5, Math.max(0.5, names.length - 0.5)]}
            ticks={names.map((_, n) => n)}
            tickFormatter={(n: number) => names[n] ?? ''}
            interval={names.length > 12 ? 'preserveStartEnd' : 0}
            angle={names.length > 5 ? -24 : 0}
            textAnchor={names.length > 5 ? 'end' : 'middle'}
            stroke="var(--soft)"
            fontSize={13}
          />
          <YAxis
            dataKey="value"
            type="number"
            domain={scale.domain()}
            ticks={scale.ticks(5)}
            tickFormatter={said}
            width={76}
            stroke="var(--soft)"
            fontSize={13}
          />
          {[series.least, series.most].map(
            (limit) =>
              limit !== null && (
                <ReferenceLine
                  key={limit}
                  y={limit}
                  stroke="var(--red)"
                  strokeDasharray="5 4"
                  ifOverflow="extendDomain"
                />
              ),
          )}
          <Tooltip
            isAnimationActive={false}
            content={({ payload }) => <Told dot={payload?.[0]?.payload} said={said} />}
          />
          <Scatter
            data={dots.filter((dot) => dot.serial !== serial)}
            fill="var(--blue)"
            fillOpacity={0.45}
            isAnimationActive={false}
          />
          <Scatter
            data={dots.filter((dot) => dot.serial === serial)}
            fill="var(--ochre)"
            stroke="var(--ink)"
            shape="diamond"
            isAnimationActive={false}
          />
        </ScatterChart>
      </ResponsiveContainer>
      <figcaption>
        A dot is one figure of one engine{isIn && <>; {serial} as diamonds</>}
        {(series.least !== null || series.most !== null) && '; the dashed lines are the limits'}.
      </figcaption>
    </figure>
  );
}

function Told({ dot, said }: { dot: Dot | undefined; said: (value: number) => string }) {
  if (!dot) return null;
  return (
    <p className={classes.told}>
      <b>{said(dot.value)}</b> {dot.serial}, {dot.place}, {dot.at.slice(0, 10)}
    </p>
  );
}
