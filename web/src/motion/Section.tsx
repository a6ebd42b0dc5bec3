/** One cylinder in section, bore upright and to scale: crank pin, rod, piston, valves. */
import { useRef } from 'react';
import type { Schemas } from '../api/client';
import type { SeenFrom } from '../app/saying';
import { movePiece, Piece, Sheet, Still } from './Piece';
import classes from './Section.module.css';
import { between, evenly, type Turning, useAngle } from './turning';

const UM = 1000;
const CROWN = 0.42; // of the bore, from piston pin to crown; drawn so in every engine
const SKIRT = 0.3;

export interface SectionProps {
  cylinder: Schemas['CylinderFrames'];
  section: Schemas['Section'];
  turning: Turning;
  seenFrom: SeenFrom;
  /** Where each camshaft stands, in crank degrees, where it does not turn with the crank; null: its valves are shut. */
  camDeg?: (camshaft: string) => number | null;
}

export function Section({ cylinder, section, turning, seenFrom, camDeg }: SectionProps) {
  const { bore_mm: bore, throw_mm: reach, top_mm: top, pin_x_mm: pinX, rod_mm: rodLength } = section;
  const crank = useRef<SVGSVGElement>(null);
  const rod = useRef<SVGSVGElement>(null);
  const piston = useRef<SVGSVGElement>(null);
  const valves = useRef(new Map<number, SVGSVGElement>());
  const reaches = { crank: reach * 1.1, rod: rodLength + bore * 0.12, piston: bore * 0.6, valve: bore * 0.75 };
  useAngle(turning, (deg: number) => {
    const turnedDeg = evenly(section.crank_pin, deg);
    const turned = (turnedDeg * Math.PI) / 180;
    const [x, y] = [reach * Math.sin(turned), -reach * Math.cos(turned)];
    const pinY = -(top - between(cylinder.drop_um, deg) / UM);
    const leaning = (Math.atan2(pinX - x, y - pinY) * 180) / Math.PI;
    movePiece(crank.current, reaches.crank, 0, 0, turnedDeg);
    movePiece(rod.current, reaches.rod, x, y, leaning);
    movePiece(piston.current, reaches.piston, 0, pinY, 0);
    for (const [n, node] of valves.current) {
      const head = section.heads[n];
      const frames = cylinder.valves.find((valve) => valve.valve === head?.valve);
      const at = frames && camDeg ? camDeg(frames.camshaft) : deg;
      const lift = frames && at != null ? between(frames.lift_um, at) / UM : 0;
      const along = ((head?.angle_deg ?? 0) * Math.PI) / 180;
      movePiece(node, reaches.valve, -lift * Math.sin(along), lift * Math.cos(along), head?.angle_deg ?? 0);
    }
  });
  const deck = -(top + bore * CROWN);
  const half = Math.max(bore, reach * 2.2) / 2 + bore * 0.14;
  const box = { left_mm: -half, right_mm: half, top_mm: -deck + bore * 0.75, bottom_mm: -reach * 1.35 };
  const size = bore / 9;
  return (
    <Sheet box={box} mirrored={seenFrom !== 'front'} label={`Cylinder ${cylinder.cylinder} in section`}>
      {section.heads.map((valve, n) => {
        const at = headPlace(section, n);
        return (
          <Piece
            key={valve.valve}
            box={box}
            x={at.x}
            y={-(deck - at.up)}
            reach={reaches.valve}
            size={size}
            ref={(node) => {
              if (node) valves.current.set(n, node);
              else valves.current.delete(n);
            }}
          >
            <path d={valvePath(valve.head_mm / 2, bore)} className={classes.valve} data-valve={valve.valve} />
          </Piece>
        );
      })}
      <Still box={box} size={size}>
        <path d={roofPath(section, deck)} className={classes.bore} />
        <circle r={reach} className={classes.path} />
      </Still>
      <Piece box={box} x={0} y={0} reach={reaches.crank} size={size} ref={crank}>
        <line y2={-reach} className={classes.web} />
        <circle r={bore * 0.06} className={classes.axis} />
      </Piece>
      <Piece box={box} x={0} y={0} reach={reaches.piston} size={size} ref={piston}>
        <PistonShape bore={bore} pinX={pinX} />
      </Piece>
      <Piece box={box} x={0} y={0} reach={reaches.rod} size={size} ref={rod}>
        <line y2={-rodLength} className={classes.rod} />
        <circle r={bore * 0.1} className={classes.pin} />
      </Piece>
    </Sheet>
  );
}

function PistonShape({ bore, pinX }: { bore: number; pinX: number }) {
  const ring = (at: number) => -bore * (CROWN - at);
  return (
    <>
      <rect
        x={-bore / 2 + 0.6}
        y={-bore * CROWN}
        width={bore - 1.2}
        height={bore * (CROWN + SKIRT)}
        className={classes.piston}
      />
      {[0.1, 0.18].map((at) => (
        <line key={at} x1={-bore / 2} x2={bore / 2} y1={ring(at)} y2={ring(at)} className={classes.ring} />
      ))}
      <circle cx={pinX} r={bore * 0.085} className={classes.pin} />
    </>
  );
}

type SectionOf = Schemas['Section'];

function slope(deg: number): number {
  return Math.tan((Math.abs(deg) * Math.PI) / 180);
}

/** Where a valve's head sits in the roof. Valves in a row along the engine would hide each other: they are drawn side by side. */
function headPlace(section: SectionOf, n: number): { x: number; up: number } {
  const { heads, bore_mm: bore } = section;
  const valve = heads[n];
  if (!valve) return { x: 0, up: 0 };
  const inRow = heads.length > 1 && heads.every((other) => other.across_mm === valve.across_mm);
  const x = inRow ? (n - (heads.length - 1) / 2) * bore * 0.46 : valve.across_mm;
  return { x, up: (bore / 2 - Math.abs(x)) * slope(valve.angle_deg) };
}

/** The bore's walls and a roof that follows the valves' faces. */
function roofPath(section: SectionOf, deck: number): string {
  const half = section.bore_mm / 2;
  const [left, right] = [-1, 1].map((side) => {
    const valve = section.heads.find((one) => Math.sign(one.angle_deg) === side);
    return valve ? slope(valve.angle_deg) : 0;
  });
  const sum = (left ?? 0) + (right ?? 0);
  const ridge = sum > 0 ? (half * ((right ?? 0) - (left ?? 0))) / sum : 0;
  const foot = -section.throw_mm * 1.05;
  return `M${-half} ${foot} V${deck} L${ridge} ${deck - (half + ridge) * (left ?? 0)} L${half} ${deck} V${foot}`;
}

function valvePath(half: number, bore: number): string {
  const stem = bore * 0.035;
  const edge = bore * 0.025;
  const side = (way: number) => `${way * stem} ${-bore * 0.05} ${way * stem} ${-bore * 0.22}`;
  return `M${-half} 0 H${half} V${-edge} Q${side(1)} V${-bore * 0.66} H${-stem} V${-bore * 0.22} Q${-stem} ${-bore * 0.05} ${-half} ${-edge} Z`;
}
