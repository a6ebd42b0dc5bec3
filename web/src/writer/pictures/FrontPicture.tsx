/** The front as a sketch from what each chain, belt or gear passes: wheels by number, the one that is asked about ringed, each to be tapped. */
import { useElementSize } from '@mantine/hooks';
import type { Schemas } from '../../api/client';
import { Loop } from '../../motion/FrontDrawing';
import { placeLabels } from '../../motion/labels';
import { Sheet, Still } from '../../motion/Piece';
import classes from './Picture.module.css';
import { oneOfEach } from './wheels';

interface FrontPictureProps {
  front: Schemas['DriveDrawing'] | null | undefined;
  /** Id of a wheel, a shaft or a drive. */
  focus: string;
  mayTap: (wheel: string) => boolean;
  onTap: (wheel: string) => void;
}

const LETTERS_PX = 13;

export function FrontPicture({ front, focus, mayTap, onTap }: FrontPictureProps) {
  const { ref, width, height } = useElementSize();
  if (!front || front.wheels.length === 0)
    return (
      <div className={classes.picture}>
        <p className={classes.legend}>The front is drawn as soon as it is said what passes what.</p>
      </div>
    );
  const box = filled(front.box, width, height);
  const [wide, high] = [box.right_mm - box.left_mm, box.top_mm - box.bottom_mm];
  const mmAPixel = width && height ? Math.max(wide / width, high / height) : 0;
  const size = Math.max(wide / 60, high / 30, LETTERS_PX * mmAPixel);
  // a shaft with several wheels is called by its own name
  const named = oneOfEach(front).map((wheel) => ({ ...wheel, name: wheel.name.split(' of the ')[0] ?? wheel.name }));
  return (
    <div className={classes.picture}>
      <div ref={ref} className={classes.front}>
        <Sheet box={box} mirrored={false} label="The front of the engine, a sketch">
          <Still box={box} size={size}>
            {front.loops.map((loop) => (
              <Loop key={loop.id} loop={loop} isLit={loop.id === focus} />
            ))}
            {oneOfEach(front).map((wheel, n) => {
              const own = front.wheels.filter((one) => one.shaft === wheel.shaft).map((one) => one.id);
              const isNow = wheel.shaft === focus || own.includes(focus);
              const tapped = own.find(mayTap) ?? (mayTap(wheel.shaft) ? wheel.shaft : undefined);
              return (
                // biome-ignore lint/a11y/noStaticElementInteractions: the same is reached by keys and in the list
                <g
                  key={wheel.id}
                  transform={`translate(${wheel.x_mm} ${-wheel.y_mm})`}
                  className={tapped === undefined ? undefined : classes.tap}
                  onClick={tapped === undefined ? undefined : () => onTap(tapped)}
                >
                  <circle
                    r={wheel.radius_mm}
                    className={classes.wheel}
                    strokeWidth={size * 0.1}
                    data-smooth={wheel.kind === 'idler' || wheel.kind === 'tensioner'}
                  />
                  {isNow && <circle r={wheel.radius_mm + size * 0.35} className={classes.now} />}
                  <text className={classes.nth} data-now={isNow}>
                    {n + 1}
                  </text>
                </g>
              );
            })}
            {placeLabels({ ...front, box, wheels: named }, size, undefined).map((label) => (
              <text
                key={label.id}
                transform={`translate(${label.x} ${label.y})`}
                className={classes.label}
                style={{ fontSize: size * 0.92 }}
              >
                {label.lines.map((line, n) => (
                  <tspan key={line} x={0} y={`${1.2 * (n - (label.lines.length - 1) / 2)}em`}>
                    {line}
                  </tspan>
                ))}
              </text>
            ))}
          </Still>
        </Sheet>
      </div>
      <p className={classes.legend}>
        {front.is_to_scale ? 'To scale, seen from the front' : 'A sketch from what passes what, not to scale'}
      </p>
    </div>
  );
}

/** As wide as its room, so that names have the ground beside it. */
function filled(box: Schemas['Box'], width: number, height: number): Schemas['Box'] {
  if (!width || !height) return box;
  const more = Math.max(0, ((box.top_mm - box.bottom_mm) * width) / height - (box.right_mm - box.left_mm)) / 2;
  return { ...box, left_mm: box.left_mm - more, right_mm: box.right_mm + more };
}
