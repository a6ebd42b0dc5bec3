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
  /** Ids of loops that do not lie yet. */
  toCome?: string[];
  /** Ids of shafts that something on for a while holds. */
  held?: string[];
  /** Whether the cover over all of it is what is worked on. */
  cover?: boolean;
}

export function FrontAt({ twin, crankDeg, seenFrom, lit, laid, toCome = [], held = [], cover = false }: FrontAtProps) {
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
        toCome={toCome}
        held={held}
        cover={cover}
        room={{ width, height }}
      />
      {!twin.drawing.is_to_scale && <span className={classes.sketch}>sketch, not to scale</span>}
    </div>
  );
}
