/** One cylinder in section as it stands at an angle of the crank, its valves or its rings in question. */
import { useMemo } from 'react';
import type { Schemas } from '../api/client';
import type { SeenFrom } from '../app/saying';
import { Section } from '../motion/Section';
import { Turning } from '../motion/turning';
import classes from './OneCylinder.module.css';

interface OneCylinderProps {
  twin: Schemas['Twin'];
  crankDeg: number;
  seenFrom: SeenFrom;
  /** Ids of the parts that the step is about. */
  asked: string[];
}

/** The cylinder that is drawn: the one whose TDC the wheel is set to; none where its measures are not known. */
export function drawnCylinder(twin: Schemas['Twin'] | undefined) {
  const found = twin?.frames.cylinders.find((one) => one.cylinder === twin.frames.reference_cylinder);
  return found?.section ? { cylinder: found, section: found.section } : null;
}

export function OneCylinder({ twin, crankDeg, seenFrom, asked }: OneCylinderProps) {
  const turning = useMemo(() => new Turning(crankDeg), [crankDeg]);
  const drawn = drawnCylinder(twin);
  if (!drawn) return null;
  return (
    <figure className={classes.one} data-about={asked.includes('rings') ? 'rings' : 'valves'}>
      <Section {...drawn} turning={turning} seenFrom={seenFrom} />
      <figcaption>
        cylinder {drawn.cylinder.cylinder}, {drawn.cylinder.bank.toLowerCase()}
      </figcaption>
    </figure>
  );
}
