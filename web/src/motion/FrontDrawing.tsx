/** The front of the engine, to scale where its lengths are known: wheels with their marks, chains and belts on their way, pointers, the chosen cylinder's lobes. */
import { useRef } from 'react';
import type { Schemas } from '../api/client';
import type { SeenFrom } from '../app/saying';
import classes from './FrontDrawing.module.css';
import { placeLabels } from './labels';
import { Piece, Sheet, Still } from './Piece';
import { evenly, type Turning, useAngle } from './turning';

type Wheel = Schemas['DrawnWheel'];
type Turned = Schemas['Sweep'];

const LETTERS_PX = 14;
const STILL: Turned = { begin_deg: 0, end_deg: 0 };

export interface FrontDrawingProps {
  twin: Schemas['Twin'];
  cylinder: Schemas['CylinderFrames'] | undefined;
  turning: Turning;
  seenFrom: SeenFrom;
  /** Ids of shafts and loops that are worked on now. */
  lit?: string[];
  /** A loop that does not lie as it should, and shafts that stand off their places for it. */
  laid?: Laid | undefined;
  /** Ids of loops that do not lie yet: they are drawn as what is to come. */
  toCome?: string[];
  /** Ids of shafts that something on for a while holds. */
  held?: string[];
  /** Whether the cover over all of it is what is worked on. */
  cover?: boolean;
  /** How many pixels the drawing has, where it is known: its letters are never smaller than they can be read. */
  room?: { width: number; height: number };
}

/** How a loop lies: its runs, taut or slack, and how far shafts are turned from where they belong, clockwise. */
export interface Laid {
  loop: string;
  runs: Schemas['DrawnRun'][];
  turned: Schemas['ShaftTurned'][];
}

/** A piece that is turned by the crank. */
interface Turner {
  node: SVGSVGElement;
  turned: Turned;
}

export function FrontDrawing({
  twin,
  cylinder,
  turning,
  seenFrom,
  lit = [],
  laid,
  toCome = [],
  held = [],
  cover = false,
  room,
}: FrontDrawingProps) {
  const { wheels } = twin.drawing;
  const box = filling(twin.drawing.box, room);
  const turners = useRef(new Map<string, Turner>());
  const hold = (key: string, turned: Turned) => (node: SVGSVGElement | null) => {
    if (node) turners.current.set(key, { node, turned });
    else turners.current.delete(key);
  };
  useAngle(turning, (deg: number) => {
    for (const { node, turned } of turners.current.values())
      node.style.transform = `rotate(${evenly(turned, deg).toFixed(3)}deg)`;
  });
  // letters come out alike on a wide drawing and a tall one
  const { left_mm, right_mm, top_mm, bottom_mm } = twin.drawing.box;
  const [wide, high] = [right_mm - left_mm, top_mm - bottom_mm];
  const mmAPixel = room?.width && room.height ? Math.max(wide / room.width, high / room.height) : 0;
  const size = Math.max(wide / 42, high / 25, LETTERS_PX * mmAPixel);
  const turnOf = (shaft: string): Turned => {
    const turned = twin.frames.shafts.find((one) => one.shaft === shaft)?.turned ?? STILL;
    const off = laid?.turned.find((one) => one.shaft === shaft)?.clock_deg ?? 0;
    return { begin_deg: turned.begin_deg + off, end_deg: turned.end_deg + off };
  };
  return (
    <Sheet box={box} mirrored={seenFrom !== 'front'} label={`The front of the engine, seen from the ${seenFrom}`}>
      <Still box={box} size={size}>
        {(twin.drawing.banks ?? []).map((bank) => (
          <polyline key={bank.name} points={pointsOf(bank.outline)} className={classes.bank} data-bank={bank.name} />
        ))}
      </Still>
      {wheels.map((wheel) => (
        <Piece
          key={wheel.id}
          box={box}
          x={wheel.x_mm}
          y={wheel.y_mm}
          reach={wheel.radius_mm + size}
          size={size}
          ref={hold(wheel.id, turnOf(wheel.shaft))}
        >
          <g data-kind={wheel.kind} data-lit={lit.includes(wheel.shaft)} data-held={held.includes(wheel.shaft)}>
            <title>{wheel.name}</title>
            <WheelShape wheel={wheel} size={size} />
          </g>
        </Piece>
      ))}
      {lobesOf(cylinder).map(({ nose_clock: nose, ...valve }) => {
        const shaft = wheels.find((wheel) => wheel.shaft === valve.camshaft);
        return (
          shaft &&
          nose && (
            <Piece
              key={valve.valve}
              box={box}
              x={shaft.x_mm}
              y={shaft.y_mm}
              reach={shaft.radius_mm * 0.6}
              size={size}
              ref={hold(`lobe ${valve.valve}`, nose)}
            >
              <path d={lobePath(shaft.radius_mm * 0.3)} className={classes.lobe} data-valve={valve.valve} />
            </Piece>
          )
        );
      })}
      <Fixed
        drawing={{ ...twin.drawing, box }}
        size={size}
        mirrored={seenFrom !== 'front'}
        lit={lit}
        laid={laid}
        toCome={toCome}
        cover={cover ? twin.drawing.box : undefined}
      />
    </Sheet>
  );
}

function pointsOf(outline: Schemas['Place'][]): string {
  return outline.map((one) => `${one.x_mm},${-one.y_mm}`).join(' ');
}

/** As wide as what is drawn may be in its room, so that names have the ground beside it. */
function filling(box: Schemas['DriveDrawing']['box'], room: FrontDrawingProps['room']) {
  if (!room?.width || !room.height) return box;
  const wide = ((box.top_mm - box.bottom_mm) * room.width) / room.height;
  const more = Math.max(0, wide - (box.right_mm - box.left_mm)) / 2;
  return { ...box, left_mm: box.left_mm - more, right_mm: box.right_mm + more };
}

/** One lobe of each sort; twin lobes stand alike. */
function lobesOf(cylinder: Schemas['CylinderFrames'] | undefined) {
  const valves = cylinder?.valves ?? [];
  return valves.filter((valve, n) => valves.findIndex((one) => one.valve === valve.valve) === n);
}

interface FixedProps {
  drawing: Schemas['DriveDrawing'];
  size: number;
  mirrored: boolean;
  lit: string[];
  laid: Laid | undefined;
  toCome: string[];
  cover: Schemas['Box'] | undefined;
}

/** What does not turn: the ways of chains and belts, tensioners, pointers, names. */
function Fixed({ drawing, size, mirrored, lit, laid, toCome, cover }: FixedProps) {
  const { box, loops, pointers } = drawing;
  return (
    <Still box={box} size={size}>
      {cover && <CoverOutline box={cover} size={size} />}
      {loops.map((loop) =>
        laid?.loop === loop.id && laid.runs.length > 0 ? (
          <LaidLoop key={loop.id} loop={loop} runs={laid.runs} size={size} mirrored={mirrored} />
        ) : (
          <Loop key={loop.id} loop={loop} isLit={lit.includes(loop.id)} isToCome={toCome.includes(loop.id)} />
        ),
      )}
      {loops.map(
        (loop) =>
          loop.tensioner && (
            <g key={loop.id} transform={`translate(${loop.tensioner.x_mm} ${-loop.tensioner.y_mm})`}>
              <path
                d={`M0 ${-size * 0.6} L${size * 0.6} 0 L0 ${size * 0.6} L${-size * 0.6} 0 Z`}
                className={classes.tensioner}
              />
              <title>{loop.tensioner.name}</title>
            </g>
          ),
      )}
      {pointers.map((pointer) => (
        <g
          key={pointer.id}
          transform={`translate(${pointer.x_mm} ${-pointer.y_mm}) rotate(${pointer.clock_deg})`}
          className={classes.pointer}
        >
          <path d={`M0 ${size * 0.55} L${-size * 0.4} ${-size * 0.4} H${size * 0.4} Z`} />
          <title>{pointer.name}</title>
        </g>
      ))}
      {placeLabels(drawing, size, laid?.runs).map((label) => (
        <text
          key={label.id}
          transform={`translate(${label.x} ${label.y}) scale(${mirrored ? -1 : 1} 1)`}
          className={classes.name}
        >
          {label.lines.map((line, n) => (
            <tspan key={line} x={0} y={`${1.2 * (n - (label.lines.length - 1) / 2)}em`}>
              {line}
            </tspan>
          ))}
        </text>
      ))}
    </Still>
  );
}

/** The edge of the cover that goes over all of it. */
function CoverOutline({ box, size }: { box: Schemas['Box']; size: number }) {
  return (
    <rect
      x={box.left_mm + size * 0.2}
      y={-box.top_mm + size * 0.2}
      width={box.right_mm - box.left_mm - size * 0.4}
      height={box.top_mm - box.bottom_mm - size * 0.4}
      rx={size * 2}
      className={classes.cover}
    >
      <title>The cover over it</title>
    </rect>
  );
}

function WheelShape({ wheel, size }: { wheel: Wheel; size: number }) {
  const r = wheel.radius_mm;
  const tooth = Math.min(size * 0.45, r * 0.1);
  return (
    <>
      <circle r={r} className={classes.face} />
      {wheel.teeth ? (
        // as many strokes round the pitch circle as there are teeth
        <circle r={r} pathLength={wheel.teeth * 2} strokeWidth={tooth} className={classes.teeth} />
      ) : (
        <circle r={r * 0.86} className={classes.inner} />
      )}
      {[0, 120, 240].map((deg) => (
        <line key={deg} y1={-r * 0.2} y2={-r * 0.8} transform={`rotate(${deg + 60})`} className={classes.spoke} />
      ))}
      <circle r={r * 0.16} className={classes.hub} />
      {wheel.marks.map((mark) => (
        <g
          key={mark.id}
          transform={`rotate(${mark.clock_deg})`}
          data-mark={mark.kind}
          data-decides={mark.decides}
          data-decoy={mark.decoy}
        >
          <title>{mark.decoy ? `${mark.name}: no mark` : mark.name}</title>
          <MarkShape kind={mark.kind} r={r} size={size} />
        </g>
      ))}
    </>
  );
}

function MarkShape({ kind, r, size }: { kind: string; r: number; size: number }) {
  if (kind === 'key')
    return <rect x={-size * 0.25} y={-r * 0.16 - size * 0.35} width={size * 0.5} height={size * 0.6} />;
  if (kind === 'dowel') return <circle cy={-r * 0.4} r={size * 0.28} />;
  return (
    <>
      <line y1={-r} y2={-r * 0.68} strokeWidth={size * 0.26} />
      <circle cy={-r * 0.9} r={size * 0.42} />
    </>
  );
}

const place = (at: Schemas['Place']) => `${at.x_mm.toFixed(2)} ${(-at.y_mm).toFixed(2)}`;

const arcPath = (arc: Schemas['Arc']) =>
  `A${arc.radius_mm} ${arc.radius_mm} 0 ${arc.large ? 1 : 0} ${arc.clockwise ? 1 : 0} ${place(arc.end)}`;

interface LaidLoopProps {
  loop: Schemas['DrawnLoop'];
  runs: Schemas['DrawnRun'][];
  size: number;
  mirrored: boolean;
}

/** A loop as it lies: taut runs straight, slack ones bent, each slack one with how much. */
function LaidLoop({ loop, runs, size, mirrored }: LaidLoopProps) {
  return (
    <g data-loop={loop.kind}>
      {loop.arcs.map((arc) => (
        <path key={place(arc.begin)} d={`M${place(arc.begin)} ${arcPath(arc)}`} className={classes.loop} />
      ))}
      {runs.map((run) => (
        <path
          key={run.after}
          d={`M${place(run.begin)} Q${place(run.bend)} ${place(run.end)}`}
          className={classes.loop}
          data-slack={!run.is_taut}
        />
      ))}
      {runs
        .filter((run) => run.words)
        .map((run) => (
          <text
            key={run.after}
            transform={`translate(${place(run.label)}) scale(${mirrored ? -1 : 1} 1)`}
            className={classes.slack}
          >
            <tspan x={0}>{run.words}</tspan>
            {run.is_pulled && (
              <tspan x={0} dy={size * 1.05}>
                on the tight side
              </tspan>
            )}
          </text>
        ))}
      <title>{loop.name}</title>
    </g>
  );
}

export function Loop({
  loop,
  isLit,
  isToCome = false,
}: {
  loop: Schemas['DrawnLoop'];
  isLit: boolean;
  isToCome?: boolean;
}) {
  const begin = loop.arcs[0];
  if (!begin) return null;
  const steps = loop.arcs.map((arc) => `${arcPath(arc)} L${place(arc.run_to)}`);
  const path = `M${place(begin.begin)} ${steps.join(' ')}`;
  return (
    <g data-loop={loop.kind} data-lit={isLit} data-come={isToCome}>
      <path d={path} className={classes.loop} />
      {!isToCome && loop.kind === 'chain' && loop.count != null && (
        <path d={path} pathLength={loop.count * 2} className={classes.links} />
      )}
      <title>
        {loop.count == null ? loop.name : `${loop.name}, ${loop.count} ${loop.kind === 'chain' ? 'links' : 'teeth'}`}
      </title>
    </g>
  );
}

/** A lobe's outline with its nose up. */
function lobePath(r: number): string {
  return `M${-r} 0 A${r} ${r} 0 0 0 ${r} 0 C${r} ${-r * 0.9} ${r * 0.45} ${-r * 1.75} 0 ${-r * 1.75} C${-r * 0.45} ${-r * 1.75} ${-r} ${-r * 0.9} ${-r} 0 Z`;
}
