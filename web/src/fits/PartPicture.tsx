/** The part that is measured, with its places: crank from the side, bores from above, pistons with their rings, a camshaft. Not to scale. */
import type { ReactNode } from 'react';
import type { Schemas } from '../api/client';
import classes from './FitDrawing.module.css';

type Fit = Schemas['FitView'];
type Place = Fit['places'][number];

const WIDE = 460;
const HIGH = 116;
const MIDDLE = 62;

interface PictureProps {
  fit: Fit;
  now: string | null;
}

export function PartPicture({ fit, now }: PictureProps) {
  const Picture = PICTURES[fit.drawn] ?? LinePicture;
  return (
    <svg
      className={classes.part}
      viewBox={`0 0 ${WIDE} ${HIGH}`}
      role="img"
      aria-label={`${fit.name}: where it is measured`}
    >
      <Picture fit={fit} now={now} />
    </svg>
  );
}

const state = (place: Place | undefined, now: string | null) => ({
  className: classes.spot,
  'data-now': place !== undefined && place.id === now,
  'data-verdict': place?.verdict ?? 'open',
});

function Labelled({ place, x, y, children }: { place: Place; x: number; y: number; children: ReactNode }) {
  return (
    <g>
      {children}
      <text className={classes.label} x={x} y={y} dy="0.35em" textAnchor="middle">
        {place.label.replace(/^\D+/, '') || place.label}
      </text>
    </g>
  );
}

/** Throws of an in-line crank stand up and down in pairs; where the places are its pins, those are the ones with numbers. */
function CrankPicture({ fit, now }: PictureProps) {
  const pins = fit.places.some((place) => place.cylinder !== null);
  const throws = pins ? fit.places.length : fit.places.length - 1;
  const each = WIDE / (throws * 2 + 1);
  const size = Math.min(each * 0.82, 34);
  const up = (n: number) => n % 4 === 0 || n % 4 === 3;
  const mainX = (n: number) => each * (2 * n + 0.5);
  const pinX = (n: number) => each * (2 * n + 1.5);
  const pinY = (n: number) => MIDDLE + (up(n) ? -1 : 1) * 34;
  return (
    <>
      {Array.from({ length: throws }, (_, n) => n).map((n) => (
        <g key={n}>
          <path
            className={classes.web}
            d={`M ${mainX(n) + size / 2} ${MIDDLE} H ${(mainX(n) + pinX(n)) / 2} V ${pinY(n)} H ${pinX(n) - size / 2} M ${pinX(n) + size / 2} ${pinY(n)} H ${(pinX(n) + mainX(n + 1)) / 2} V ${MIDDLE} H ${mainX(n + 1) - size / 2}`}
          />
          <rect
            {...state(pins ? fit.places[n] : undefined, now)}
            x={pinX(n) - size / 2}
            y={pinY(n) - size / 2}
            width={size}
            height={size}
            rx={2}
          />
        </g>
      ))}
      {Array.from({ length: throws + 1 }, (_, n) => n).map((n) => (
        <rect
          key={n}
          {...state(pins ? undefined : fit.places[n], now)}
          x={mainX(n) - size / 2}
          y={MIDDLE - size / 2 - 2}
          width={size}
          height={size + 4}
          rx={2}
        />
      ))}
      {fit.places.map((place, n) => (
        <Labelled key={place.id} place={place} x={pins ? pinX(n) : mainX(n)} y={pins ? pinY(n) : MIDDLE}>
          {null}
        </Labelled>
      ))}
    </>
  );
}

function BlockPicture({ fit, now }: PictureProps) {
  const each = WIDE / fit.places.length;
  const radius = Math.min(each * 0.4, 42);
  return (
    <>
      <rect className={classes.body} x={4} y={MIDDLE - radius - 8} width={WIDE - 8} height={2 * radius + 16} rx={6} />
      {fit.places.map((place, n) => (
        <Labelled key={place.id} place={place} x={each * (n + 0.5)} y={MIDDLE}>
          <circle {...state(place, now)} cx={each * (n + 0.5)} cy={MIDDLE} r={radius} />
        </Labelled>
      ))}
    </>
  );
}

/** Each piston once, its rings from the crown down. */
function PistonPicture({ fit, now }: PictureProps) {
  const cylinders = [...new Set(fit.places.map((place) => place.cylinder))];
  const each = WIDE / cylinders.length;
  const wide = Math.min(each * 0.7, 76);
  return cylinders.map((cylinder, n) => {
    const left = each * (n + 0.5) - wide / 2;
    return (
      <g key={cylinder}>
        <rect className={classes.body} x={left} y={18} width={wide} height={84} rx={4} />
        <circle className={classes.web} cx={left + wide / 2} cy={80} r={9} />
        {fit.places
          .filter((place) => place.cylinder === cylinder)
          .map((place, ring) => (
            <rect
              key={place.id}
              {...state(place, now)}
              x={left - 3}
              y={28 + ring * 13}
              width={wide + 6}
              height={8}
              rx={1}
            />
          ))}
        <text className={classes.label} x={left + wide / 2} y={12} textAnchor="middle" dy="0.1em">
          {cylinder}
        </text>
      </g>
    );
  });
}

function LinePicture({ fit, now }: PictureProps) {
  const each = WIDE / fit.places.length;
  const size = Math.min(each * 0.6, 44);
  return (
    <>
      <line className={classes.web} x1={8} x2={WIDE - 8} y1={MIDDLE} y2={MIDDLE} />
      {fit.places.map((place, n) => (
        <Labelled key={place.id} place={place} x={each * (n + 0.5)} y={MIDDLE}>
          <rect
            {...state(place, now)}
            x={each * (n + 0.5) - size / 2}
            y={MIDDLE - size / 2}
            width={size}
            height={size}
            rx={2}
          />
        </Labelled>
      ))}
    </>
  );
}

const PICTURES: Record<string, (props: PictureProps) => ReactNode> = {
  crank: CrankPicture,
  block: BlockPicture,
  piston: PistonPicture,
  head: LinePicture,
};
