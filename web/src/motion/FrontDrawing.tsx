/** The front of the engine to scale: wheels with their marks, chains and belts on their way, pointers, the chosen cylinder's lobes. */
import { useCallback, useRef } from 'react';
import type { Schemas } from '../api/client';
import type { SeenFrom } from '../app/saying';
import classes from './FrontDrawing.module.css';
import { placeLabels } from './labels';
import { evenly, type Turning, useAngle } from './turning';

type Wheel = Schemas['DrawnWheel'];
type Turned = Schemas['Sweep'];

const STILL: Turned = { begin_deg: 0, end_deg: 0 };

export interface FrontDrawingProps {
  twin: Schemas['Twin'];
  cylinder: Schemas['CylinderFrames'] | undefined;
  turning: Turning;
  seenFrom: SeenFrom;
}

/** A place in a group that is turned by the crank. */
interface Turner {
  node: SVGGElement;
  turned: Turned;
}

export function FrontDrawing({ twin, cylinder, turning, seenFrom }: FrontDrawingProps) {
  const { box, wheels, loops, pointers } = twin.drawing;
  const turners = useRef(new Map<string, Turner>());
  const hold = (key: string, turned: Turned) => (node: SVGGElement | null) => {
    if (node) turners.current.set(key, { node, turned });
    else turners.current.delete(key);
  };
  useAngle(
    turning,
    useCallback((deg: number) => {
      for (const { node, turned } of turners.current.values())
        node.style.transform = `rotate(${evenly(turned, deg).toFixed(3)}deg)`;
    }, []),
  );
  const side = seenFrom === 'front' ? 1 : -1;
  const [left, right] = side > 0 ? [box.left_mm, box.right_mm] : [-box.right_mm, -box.left_mm];
  // letters come out alike on a wide drawing and a tall one
  const size = Math.max((right - left) / 42, (box.top_mm - box.bottom_mm) / 27);
  const turnOf = (shaft: string): Turned => twin.frames.shafts.find((one) => one.shaft === shaft)?.turned ?? STILL;
  return (
    <svg
      className={classes.front}
      viewBox={`${left} ${-box.top_mm} ${right - left} ${box.top_mm - box.bottom_mm}`}
      style={{ fontSize: size }}
      role="img"
      aria-label={`The front of the engine, seen from the ${seenFrom}`}
    >
      <g transform={`scale(${side} 1)`}>
        {wheels.map((wheel) => (
          <g key={wheel.id} transform={`translate(${wheel.x_mm} ${-wheel.y_mm})`} data-kind={wheel.kind}>
            <g ref={hold(wheel.id, turnOf(wheel.shaft))} className={classes.turns}>
              <WheelShape wheel={wheel} size={size} />
            </g>
          </g>
        ))}
        {loops.map((loop) => (
          <Loop key={loop.id} loop={loop} />
        ))}
        {cylinder?.valves
          .filter((valve, n, all) => all.findIndex((one) => one.valve === valve.valve) === n)
          .map((valve) => {
            const shaft = wheels.find((wheel) => wheel.shaft === valve.camshaft);
            return (
              shaft && (
                <g key={valve.valve} transform={`translate(${shaft.x_mm} ${-shaft.y_mm})`}>
                  <g ref={hold(`lobe ${valve.valve}`, valve.nose_clock)} className={classes.turns}>
                    <path d={lobePath(shaft.radius_mm * 0.3)} className={classes.lobe} data-valve={valve.valve} />
                  </g>
                </g>
              )
            );
          })}
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
            <path d={`M0 ${size * 0.7} L${-size * 0.45} ${-size * 0.5} H${size * 0.45} Z`} />
            <title>{pointer.name}</title>
          </g>
        ))}
        {placeLabels(twin.drawing, size).map((label) => (
          <text key={label.id} transform={`translate(${label.x} ${label.y}) scale(${side} 1)`} className={classes.name}>
            {label.text}
          </text>
        ))}
      </g>
    </svg>
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
        <g key={mark.id} transform={`rotate(${mark.clock_deg})`} data-mark={mark.kind} data-decides={mark.decides}>
          <title>{mark.name}</title>
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

function Loop({ loop }: { loop: Schemas['DrawnLoop'] }) {
  const begin = loop.arcs[0];
  if (!begin) return null;
  const place = (at: Schemas['Place']) => `${at.x_mm.toFixed(2)} ${(-at.y_mm).toFixed(2)}`;
  const steps = loop.arcs.map(
    (arc) =>
      `A${arc.radius_mm} ${arc.radius_mm} 0 ${arc.large ? 1 : 0} ${arc.clockwise ? 1 : 0} ${place(arc.end)} L${place(arc.run_to)}`,
  );
  const path = `M${place(begin.begin)} ${steps.join(' ')}`;
  return (
    <g data-loop={loop.kind}>
      <path d={path} className={classes.loop} />
      {loop.kind === 'chain' && <path d={path} pathLength={loop.count * 2} className={classes.links} />}
      <title>{`${loop.name}, ${loop.count} ${loop.kind === 'chain' ? 'links' : 'teeth'}`}</title>
    </g>
  );
}

/** A lobe's outline with its nose up. */
function lobePath(r: number): string {
  return `M${-r} 0 A${r} ${r} 0 0 0 ${r} 0 C${r} ${-r * 0.9} ${r * 0.45} ${-r * 1.75} 0 ${-r * 1.75} C${-r * 0.45} ${-r * 1.75} ${-r} ${-r * 0.9} ${-r} 0 Z`;
}
