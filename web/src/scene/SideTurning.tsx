/** The engine from the side, all its cylinders, as its crank turns: what is coupled to the crank moves, and nothing else. */
import { useQuery } from '@tanstack/react-query';
import { useMemo, useRef } from 'react';
import type { SeenFrom } from '../app/saying';
import type { TwinOf } from '../motion/api';
import { type Turning, useAngle } from '../motion/turning';
import { turningQuery } from './api';
import { Drawn } from './ScenePicture';
import classes from './ScenePicture.module.css';
import { built, fromFlywheel, type Part } from './shown';
import { placed, standingAt } from './turned';

export interface SideTurningProps {
  of: TwinOf;
  turning: Turning;
  seenFrom: SeenFrom;
}

export function SideTurning({ of, turning, seenFrom }: SideTurningProps) {
  const side = useQuery(turningQuery(of)).data;
  const drawing = useRef<HTMLDivElement>(null);
  const riding = useRef<{ view: unknown; nodes: Element[] }>({ view: null, nodes: [] });
  const view = useMemo(() => side && (seenFrom === 'front' ? side.view : fromFlywheel(side.view)), [side, seenFrom]);
  useAngle(turning, (deg: number) => {
    if (!side) return;
    const now = standingAt(side, deg);
    if (riding.current.view !== view)
      riding.current = { view, nodes: [...(drawing.current?.querySelectorAll('[data-rides] > *') ?? [])] };
    // whatever is set is laid out anew, though it be the same
    for (const [n, node] of riding.current.nodes.entries())
      for (const [name, value] of placed(node.tagName, now[2 * n] ?? 0, now[2 * n + 1] ?? 0))
        if (node.getAttribute(name) !== value) node.setAttribute(name, value);
  });
  if (!side || !view) return null;
  const shown = built(view.parts);
  const size = Math.max(view.width / 40, view.height / 25);
  return (
    <>
      <div ref={drawing} className={classes.turning} role="img" aria-label="The engine from the side, turning">
        {layersOf(
          view.parts.filter((part) => part.id in shown),
          side.moving,
        ).map((layer) => (
          <svg
            key={layer[0]?.id}
            aria-hidden="true"
            viewBox={`${view.left} ${view.top} ${view.width} ${view.height}`}
            style={{ fontSize: size }}
          >
            {layer.map((part) => (
              <g
                key={part.id}
                data-part={part.id}
                data-stands="in"
                {...(side.moving.includes(part.id) ? { 'data-rides': true } : {})}
              >
                {part.shapes.map((shape, n) => (
                  <Drawn key={n} shape={shape} hatch="" />
                ))}
              </g>
            ))}
          </svg>
        ))}
      </div>
      <figcaption>sketch: {view.sketched.join(', ')}</figcaption>
    </>
  );
}

/** Parts that move and parts that stand still in turn, one over the other: what stands still is then laid out once. */
function layersOf(parts: Part[], moving: string[]): Part[][] {
  const layers: Part[][] = [];
  for (const part of parts) {
    const last = layers.at(-1);
    const rides = moving.includes(part.id);
    if (last?.[0] && moving.includes(last[0].id) === rides) last.push(part);
    else layers.push([part]);
  }
  return layers;
}
