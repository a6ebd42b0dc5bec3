/** The degree wheel: it stands still with TDC on top, in the builder's own numbering; the pointer goes round. */
import type { Schemas } from '../api/client';
import type { Question } from '../ledger/contract';
import { camAsked } from './asked';
import { placeAt, RIM, reach, roundPath, spiralPath } from './spiral';
import classes from './WheelDrawing.module.css';

const LANE = 5.5;

export interface WheelDrawingProps {
  timing: Schemas['TimingView'];
  question: Question | undefined;
  clockwise: boolean;
}

export function WheelDrawing({ timing, question, clockwise }: WheelDrawingProps) {
  const { wheel, crank, cams } = timing;
  const about = camAsked(question);
  const asked = cams.filter((cam) => !about || cam.camshaft === about);
  // several cams on one drawing would lie on each other: the one that is asked about is drawn
  const valves = (cams.length > 2 ? asked.slice(0, 2) : cams).flatMap((cam) => cam.valves);
  const label = crank ? `Degree wheel, crank at ${crank.words}` : 'Degree wheel';
  return (
    <figure className={classes.figure}>
      <svg viewBox="-222 -224 444 448" role="img" aria-label={label}>
        <circle r={RIM} className={classes.face} />
        <Ticks clockwise={clockwise} />
        <line x1={-178} x2={178} className={classes.hair} />
        <line y1={-178} y2={178} className={classes.hair} />
        <path d={spiralPath(0, 720, clockwise)} className={classes.strokes} />
        {valves.map((valve) => (
          <ValveArc key={`${valve.valve} ${valve.cylinder} ${valve.lift_mm}`} valve={valve} clockwise={clockwise} />
        ))}
        {wheel?.labels.map((figure) => {
          const at = placeAt(figure.turned_deg, RIM - 28, clockwise);
          return (
            <text key={figure.turned_deg} x={at.x} y={at.y} className={classes.figureText}>
              {figure.text}
            </text>
          );
        })}
        <text y={-RIM - 9} className={classes.centre}>
          TDC
        </text>
        <text y={RIM + 18} className={classes.centre}>
          BDC
        </text>
        <Expected question={question} clockwise={clockwise} />
        <Pointer crank={crank} clockwise={clockwise} />
      </svg>
      <figcaption className={classes.legend}>
        <span data-valve="intake">intake</span>
        <span data-valve="exhaust">exhaust</span>
        <span data-card="">card</span>
      </figcaption>
    </figure>
  );
}

function Ticks({ clockwise }: { clockwise: boolean }) {
  return Array.from({ length: 72 }, (_, n) => {
    const from = placeAt(n * 5, RIM, clockwise);
    const to = placeAt(n * 5, RIM - (n % 6 === 0 ? 14 : n % 2 === 0 ? 9 : 5), clockwise);
    return <line key={from.x + from.y * 1000} x1={from.x} y1={from.y} x2={to.x} y2={to.y} className={classes.tick} />;
  });
}

function ValveArc({ valve, clockwise }: { valve: Schemas['ValveFigures']; clockwise: boolean }) {
  const { opening, closing } = valve;
  // intake and exhaust keep to a lane each, so that the overlap can be seen
  const lane = valve.valve === 'intake' ? LANE : -LANE;
  const known = [opening, closing].flatMap((event) => (event.wheel_deg == null ? [] : [event.wheel_deg]));
  const onCard = [opening.card_wheel_deg, closing.card_wheel_deg];
  const [from, to] = [opening.wheel_deg, closing.wheel_deg];
  return (
    <g data-valve={valve.valve} className={classes.valve}>
      {onCard[0] != null && onCard[1] != null && (
        <path d={roundPath(onCard[0], onCard[1], clockwise, 2.4 * lane)} className={classes.card} />
      )}
      {from != null && to != null && <path d={roundPath(from, to, clockwise, lane)} className={classes.measured} />}
      {known.map((deg) => {
        const inner = placeAt(deg, reach(deg) + lane - 8, clockwise);
        const outer = placeAt(deg, reach(deg) + lane + 8, clockwise);
        return <line key={deg} x1={inner.x} y1={inner.y} x2={outer.x} y2={outer.y} className={classes.event} />;
      })}
    </g>
  );
}

/** Where the card has what is asked for now. */
function Expected({ question, clockwise }: Pick<WheelDrawingProps, 'question' | 'clockwise'>) {
  const asked = question?.kind === 'lift_reading' ? question : undefined;
  const deg = asked?.expected_words ? asked.expected_deg : undefined;
  if (deg == null) return null;
  const at = placeAt(deg, reach(deg), clockwise);
  const rim = placeAt(deg, RIM, clockwise);
  return (
    <g className={classes.expected}>
      <line x1={at.x} y1={at.y} x2={rim.x} y2={rim.y} />
      <circle cx={at.x} cy={at.y} r={7} />
    </g>
  );
}

interface PointerProps {
  crank: Schemas['CrankAt'] | null | undefined;
  clockwise: boolean;
}

function Pointer({ crank, clockwise }: PointerProps) {
  const [figure, ...side] = crank ? crank.words.split('° ') : [];
  const arrow = clockwise ? 'M26 40 A48 48 0 0 1 -26 40' : 'M-26 40 A48 48 0 0 0 26 40';
  const head = clockwise ? 'M-26 40 l9 -3 l-3 9 z' : 'M26 40 l-9 -3 l3 9 z';
  return (
    <g>
      {crank && (
        <g transform={`rotate(${clockwise ? crank.crank_deg : -crank.crank_deg})`} className={classes.pointer}>
          <line y1={-56} y2={-RIM + 2} />
          <path d={`M0 ${-RIM + 2} l-7 -17 h14 z`} />
        </g>
      )}
      <circle r={56} className={classes.hub} />
      <text y={-22} className={classes.small}>
        {crank ? 'crank stands' : 'no reading'}
      </text>
      <text y={7} className={classes.big}>
        {crank ? (side.length ? `${figure}°` : 'TDC') : '–'}
      </text>
      <text y={26} className={classes.small}>
        {side.join(' ')}
      </text>
      <path d={arrow} className={classes.turn} />
      <path d={head} className={classes.turnHead} />
    </g>
  );
}
