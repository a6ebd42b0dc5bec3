/** The engine from one side: what is in, loose, to come or undone, and what the step is about. Any part says what it is when touched. */
import { useMediaQuery } from '@mantine/hooks';
import { useId, useMemo, useState } from 'react';
import type { Schemas } from '../api/client';
import type { Voice } from '../app/saying';
import { PartSaid } from './PartSaid';
import classes from './ScenePicture.module.css';
import { fromFlywheel, inside, isShown, isThere, nameOf, SAID, type Stands, zoomed } from './shown';

type Part = Schemas['ScenePart'];

const SEEN: Record<Schemas['SceneView']['looking'], string> = {
  side: 'The engine from the side',
  above: 'The engine from above',
  front: 'The engine from the front',
  cylinder: 'One cylinder in section',
  rings: 'The rings of a cylinder from above',
};

export interface ScenePictureProps {
  scene: Schemas['Scene'];
  view: Schemas['SceneView'];
  stands: Stands;
  /** Ids of the parts that the step is about. */
  asked: string[];
  /** Left out where no engine is at work. */
  bench?: Schemas['Bench'];
  voice?: Voice;
  /** Go to a step's question, by its key. */
  choose?: (key: string) => void;
}

export function ScenePicture({ scene, view: fromFront, stands, asked, bench, voice, choose }: ScenePictureProps) {
  const hatch = useId();
  const about = asked.join(' ');
  const [told, tell] = useState<{ part: Part; about: string } | null>(null);
  // with another step's parts in question it is about those again
  const touched = told?.about === about ? told.part : null;
  const touch = (part: Part | null) => tell(part && { part, about });
  const isNarrow = useMediaQuery('(max-width: 700px)');
  const isFromFront = voice?.seenFrom !== 'flywheel';
  const view = useMemo(() => (isFromFront ? fromFront : fromFlywheel(fromFront)), [fromFront, isFromFront]);
  const shown = view.parts.filter((part) => isShown(part, stands, asked));
  const { left, top, width, height } = isNarrow ? zoomed(view, shown, asked) : view;
  const size = Math.max(width / 40, height / 25);
  return (
    <figure className={classes.picture} data-told={touched !== null && bench !== undefined}>
      <svg viewBox={`${left} ${top} ${width} ${height}`} style={{ fontSize: size }}>
        <title>{`${SEEN[view.looking]}${isFromFront ? '' : ', flywheel to the left'}`}</title>
        <defs>
          <pattern
            id={hatch}
            width={size * 0.7}
            height={size * 0.7}
            patternUnits="userSpaceOnUse"
            patternTransform="rotate(45)"
          >
            <line y2={size} className={classes.hatch} />
          </pattern>
        </defs>
        {/* what is asked lies on top of what is there */}
        {[...shown]
          .sort((one, two) => Number(asked.includes(one.id)) - Number(asked.includes(two.id)))
          .map((part) => (
            // biome-ignore lint/a11y/useSemanticElements: a drawing has no buttons of its own
            <g
              // two banks have parts of one id
              key={view.parts.indexOf(part)}
              role="button"
              tabIndex={0}
              aria-label={nameOf(part, stands, asked)}
              data-part={part.id}
              data-stands={stands[part.id] ?? 'to come'}
              data-asked={asked.includes(part.id)}
              data-touched={part.id === touched?.id}
              onClick={() => touch(part)}
              onFocus={(event) => event.currentTarget.matches(':focus-visible') && touch(part)}
            >
              {inside(part.shapes, { left, width }, size).map((shape, at) => (
                <Drawn
                  key={at}
                  shape={isThere(part, stands, asked) || shape.form === 'words' ? shape : { ...shape, text: '' }}
                  hatch={stands[part.id] === 'undone' ? hatch : ''}
                />
              ))}
            </g>
          ))}
      </svg>
      <figcaption>
        {touched ? (
          <PartSaid
            part={touched}
            scene={scene}
            stands={stands}
            bench={bench}
            voice={voice}
            choose={choose}
            onClose={() => touch(null)}
          />
        ) : (
          <Legend stands={stands} shown={shown} asked={asked} sketched={view.sketched} />
        )}
      </figcaption>
    </figure>
  );
}

export function Drawn({ shape, hatch }: { shape: Schemas['Shape']; hatch: string }) {
  const fill = hatch ? { style: { fill: `url(#${hatch})` } } : {};
  const { form, x, y, w, h, text, faint } = shape;
  if (form === 'words')
    return (
      <text x={x} y={y} className={classes.words}>
        {text}
      </text>
    );
  if (form === 'line') return <line x1={x} y1={y} x2={x + w} y2={y + h} data-faint={faint} />;
  return (
    <>
      {form === 'ring' ? (
        <circle cx={x} cy={y} r={w / 2} data-faint={faint} {...fill} />
      ) : (
        <rect x={x - w / 2} y={y - h / 2} width={w} height={h} data-faint={faint} {...fill} />
      )}
      {text && (
        <text x={x} y={y} className={classes.own}>
          {text}
        </text>
      )}
    </>
  );
}

interface LegendProps {
  shown: Part[];
  stands: Stands;
  asked: string[];
  sketched: string[];
}

function Legend({ shown, stands, asked, sketched }: LegendProps) {
  const there = new Set(shown.filter((part) => !asked.includes(part.id)).map((part) => stands[part.id]));
  const names = [...new Set(shown.filter((part) => asked.includes(part.id)).map((part) => part.name))];
  const on = shown.filter((part) => stands[part.id] === 'held' && !asked.includes(part.id)).map((part) => part.name);
  return (
    <>
      {names.length > 0 && (
        <span data-key="asked">
          <i /> {names.slice(0, 3).join(', ')}
        </span>
      )}
      {(['loose', 'to come', 'undone'] as const)
        .filter((one) => there.has(one))
        .map((one) => (
          <span key={one} data-key={one}>
            <i /> {SAID[one]}
          </span>
        ))}
      {on.length > 0 && (
        <span data-key="held">
          <i /> {on.join(', ')}
        </span>
      )}
      <span>sketch: {sketched.join(', ')}</span>
    </>
  );
}
