/** How far a gauge was off each time it was tried against another, between the bounds that its certificate promises. */
import { CartesianGrid, ReferenceLine, ResponsiveContainer, Scatter, ScatterChart, XAxis, YAxis } from 'recharts';
import type { Schemas } from '../api/client';

interface DriftProps {
  checks: Schemas['CheckOut'][];
  unit: string;
  u: number;
}

export function Drift({ checks, unit, u }: DriftProps) {
  const dots = checks.map((check) => ({ x: Date.parse(check.at), y: check.off })).reverse();
  const most = Math.max(u, ...dots.map((dot) => Math.abs(dot.y))) * 1.15;
  return (
    <figure>
      <ResponsiveContainer width="100%" height={170}>
        <ScatterChart margin={{ top: 8, right: 12, bottom: 8, left: 8 }}>
          <CartesianGrid stroke="var(--hair)" vertical={false} />
          <XAxis
            dataKey="x"
            type="number"
            domain={['dataMin', 'dataMax']}
            tickFormatter={(at: number) => new Date(at).toISOString().slice(0, 7)}
            stroke="var(--soft)"
            fontSize={13}
          />
          <YAxis dataKey="y" type="number" domain={[-most, most]} width={64} stroke="var(--soft)" fontSize={13} />
          <ReferenceLine y={0} stroke="var(--soft)" />
          <ReferenceLine y={u} stroke="var(--red)" strokeDasharray="5 4" />
          <ReferenceLine y={-u} stroke="var(--red)" strokeDasharray="5 4" />
          <Scatter data={dots} fill="var(--blue)" line isAnimationActive={false} />
        </ScatterChart>
      </ResponsiveContainer>
      <figcaption>Off by, in {unit}; the dashed lines are what its certificate promises.</figcaption>
    </figure>
  );
}
