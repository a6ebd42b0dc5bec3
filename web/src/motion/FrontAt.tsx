/** The front of an engine with its crank standing at one angle; it takes the room that is there. */
import { useElementSize } from '@mantine/hooks';
import { useMemo } from 'react';
import type { Schemas } from '../api/client';
import classes from './FrontAt.module.css';
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
  const { ref, width, height } = useElementSize();
  return (
    <div ref={ref} className={classes.room}>
      <FrontDrawing
        twin={twin}
        cylinder={undefined}
        turning={turning}
        seenFrom={seenFrom}
        lit={lit}
        laid={laid}
        room={{ width, height }}
      />
      {!twin.drawing.is_to_scale && <span className={classes.sketch}>sketch, not to scale</span>}
    </div>
  );
}
