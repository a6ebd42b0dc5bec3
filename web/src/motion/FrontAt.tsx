/** The front of an engine with its crank standing at one angle. */
import { useMemo } from 'react';
import type { Schemas } from '../api/client';
import { FrontDrawing, type Laid } from './FrontDrawing';
import { Turning } from './turning';

interface FrontAtProps {
  twin: Schemas['Twin'];
  crankDeg: number;
  seenFrom: 'front' | 'flywheel';
  lit: string[];
  laid?: Laid | undefined;
}

export function FrontAt({ twin, crankDeg, seenFrom, lit, laid }: FrontAtProps) {
  const turning = useMemo(() => new Turning(crankDeg), [crankDeg]);
  return <FrontDrawing twin={twin} cylinder={undefined} turning={turning} seenFrom={seenFrom} lit={lit} laid={laid} />;
}
