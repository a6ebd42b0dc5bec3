/** One cylinder in section: its valves as many as are known, and where the cams are. */
import type { Draft } from '../api';
import classes from './Picture.module.css';

const VALVE = 26;

export function CylinderPicture({ view }: { view: Draft['view'] }) {
  const [intake = 1, exhaust = 1] = view.valves ?? [];
  const isKnown = view.valves !== null;
  return (
    <div className={classes.picture}>
      <svg viewBox="-150 -120 300 240" role="img" aria-label="One cylinder in section">
        <path d="M -70 100 V -30 H -62 V 100 M 70 100 V -30 H 62 V 100" className={classes.body} />
        <path d="M -78 -30 L -78 -62 L -58 -72 L 58 -72 L 78 -62 L 78 -30 Z" className={classes.body} />
        <rect x={-61} y={20} width={122} height={52} rx={3} className={classes.sheet} />
        <path d="M 0 46 V 112" className={classes.thin} />
        <Valves count={intake} x={-32} lean={-12} isKnown={isKnown} />
        <Valves count={exhaust} x={32} lean={12} isKnown={isKnown} />
        {view.cams_at === 'two' &&
          [-52, 52].map((x) => <circle key={x} cx={x} cy={-96} r={15} className={classes.blue} />)}
        {view.cams_at === 'one' && <circle cx={0} cy={-98} r={15} className={classes.blue} />}
        {view.cams_at === 'block' && (
          <>
            <circle cx={112} cy={70} r={15} className={classes.blue} />
            <path d="M 112 54 V -66" className={classes.thin} />
          </>
        )}
        <text x={-34} y={-4} className={classes.label}>
          {isKnown ? `${intake} in` : 'in'}
        </text>
        <text x={34} y={-4} className={classes.label}>
          {isKnown ? `${exhaust} out` : 'out'}
        </text>
      </svg>
      <p className={classes.legend}>One cylinder in section, not to scale</p>
    </div>
  );
}

interface ValvesProps {
  count: number;
  x: number;
  lean: number;
  isKnown: boolean;
}

function Valves({ count, x, lean, isKnown }: ValvesProps) {
  const each = VALVE / count;
  return (
    <g transform={`translate(${x} -30) rotate(${lean})`} opacity={isKnown ? 1 : 0.45}>
      {Array.from({ length: count }, (_, n) => (n - (count - 1) / 2) * (each + 5)).map((at) => (
        <path
          key={at}
          d={`M ${at} -52 V 0 M ${at - each / 2 - 2} 3 L ${at} -4 L ${at + each / 2 + 2} 3 Z`}
          className={classes.thin}
        />
      ))}
    </g>
  );
}
