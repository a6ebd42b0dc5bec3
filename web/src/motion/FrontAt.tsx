/** The front of an engine with its crank standing at one angle. */
import { useMemo } from 'react';
import type { Schemas } from '../api/client';
import { FrontDrawing } from './FrontDrawing';
import { Turning } from './turning';

interface FrontAtProps {
  twin: Schemas['Twin'];
  crankDeg: number;
  seenFrom: 'front' | 'flywheel';
  lit: string[];
}

export function FrontAt({ twin, crankDeg, seenFrom, lit }: FrontAtProps) {
  const turning = useMemo(() => new Turning(crankDeg), [crankDeg]);
  return <FrontDrawing twin={twin} cylinder={undefined} turning={turning} seenFrom={seenFrom} lit={lit} />;
}
