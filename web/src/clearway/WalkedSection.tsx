/** The cylinder that comes nearest at a place of the map, in section: its piston by the crank's place, its valves by the camshafts'. */
import { useQuery } from '@tanstack/react-query';
import { useMemo } from 'react';
import type { SeenFrom } from '../app/saying';
import { type TwinOf, twinQuery } from '../motion/api';
import { Section } from '../motion/Section';
import { Turning } from '../motion/turning';
import classes from './WalkedSection.module.css';

export interface WalkedSectionProps {
  of: TwinOf;
  /** By shaft, in crank degrees; whatever is not named is out of the way. */
  places: Record<string, number>;
  cylinder: number;
  seenFrom: SeenFrom;
}

export function WalkedSection({ of, places, cylinder, seenFrom }: WalkedSectionProps) {
  const { data: twin } = useQuery(twinQuery(of, 'rest'));
  const drawn = twin?.frames.cylinders.find((one) => one.cylinder === cylinder);
  const crankDeg = places.crank ?? lowest(drawn?.drop_um ?? []);
  const turning = useMemo(() => new Turning(crankDeg), [crankDeg]);
  if (!drawn?.section) return null;
  return (
    <figure className={classes.walked}>
      <Section
        cylinder={drawn}
        section={drawn.section}
        turning={turning}
        seenFrom={seenFrom}
        camDeg={(camshaft) => places[camshaft] ?? null}
      />
      <figcaption>cylinder {cylinder}, where it comes nearest</figcaption>
    </figure>
  );
}

/** Of two camshafts alone the crank is not asked: its piston is drawn as far down as it goes. */
function lowest(drops: number[]): number {
  return drops.indexOf(Math.max(...drops));
}
