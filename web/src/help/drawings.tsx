/** One small drawing for each subject of the help: what is done, not a particular engine. */
import type { ComponentType } from 'react';
import type { Schemas } from '../api/client';

type Name = Schemas['Topic']['drawing'];

const spokes = (from: number, to: number, step: number) =>
  Array.from({ length: 360 / step }, (_, n) => n * step).map((deg) => (
    <line key={deg} y1={-from} y2={-to} transform={`rotate(${deg})`} />
  ));

/** A degree wheel with its pointer. */
const Wheel = () => (
  <g transform="translate(100 78)">
    <circle r="52" className="wash" />
    <circle r="12" />
    {spokes(52, 44, 10)}
    <path d="M0 -64 v20" className="blue" />
    <path d="M60 -40 q-30 -32 -58 -24" />
  </g>
);

/** A piston against a stop, on both sides of its top. */
const Stop = () => (
  <>
    <path d="M70 6 v90 M130 6 v90" />
    <rect x="72" y="40" width="56" height="34" className="wash" />
    <path d="M100 4 v34" className="red" />
    <path d="M100 60 L128 118" />
    <circle cx="100" cy="118" r="28" className="soft" />
    <path d="M72 118 a28 28 0 0 1 8 -20 M128 118 a28 28 0 0 0 -8 -20" className="blue" />
    <circle cx="100" cy="60" r="4" />
  </>
);

/** A dial on a piston's crown. */
const Dial = () => (
  <>
    <circle cx="100" cy="34" r="26" className="wash" />
    <path d="M100 34 L112 18" className="blue" />
    <path d="M100 60 v34" />
    <path d="M64 94 h72 v30 h-72z M58 84 v44 M142 84 v44" />
  </>
);

/** A cam under its follower, with a lift and both flanks. */
const Lobe = () => (
  <>
    <path
      d="M100 118 a32 32 0 1 1 31 -40 q4 -34 -2 -40 q-16 -8 -34 16 a32 32 0 0 1 5 64z"
      className="wash"
      transform="rotate(-34 100 88)"
    />
    <circle cx="100" cy="88" r="32" className="soft dash" />
    <path d="M76 40 h48 v-10 h-48z M100 30 v-24" />
    <path d="M150 40 v16 M144 40 h12 M144 56 h12" className="blue" />
    <circle cx="100" cy="88" r="3" />
  </>
);

/** A loop over three wheels: the tight side, and the slack at the tensioner. */
const Belt = () => (
  <>
    <circle cx="62" cy="34" r="24" />
    <circle cx="138" cy="34" r="24" />
    <circle cx="100" cy="112" r="16" />
    <path d="M38 34 L84 112" className="blue" />
    <path d="M62 10 H138" />
    <path d="M162 34 q-18 26 -26 40 q-8 22 -20 38" className="dash" />
    <circle cx="150" cy="78" r="9" className="wash" />
    <path d="M62 10 v9 M138 10 v9 M100 128 v-9" className="red" />
  </>
);

/** A plunger that pushes a guide against the slack side. */
const Tensioner = () => (
  <>
    <path d="M150 10 q-26 50 -6 120" className="dash" />
    <path d="M124 10 q-26 58 -2 120" className="wash" />
    <rect x="34" y="52" width="42" height="34" className="wash" />
    <path d="M76 60 h32 v18 h-32" className="blue" />
    <path d="M40 58 l6 22 l6 -22 l6 22 l6 -22 l6 22" />
  </>
);

/** A crank at its mark, held by a pin. */
const Park = () => (
  <>
    <circle cx="100" cy="74" r="46" className="wash" />
    <circle cx="100" cy="74" r="10" />
    <path d="M100 28 v12" className="red" />
    <path d="M100 24 l-7 -12 h14z" />
    <circle cx="130" cy="96" r="6" />
    <path d="M130 96 L176 118" className="blue" />
    <path d="M176 112 v12" />
  </>
);

/** Two marks, one that meets and one that is a tooth off. */
const Marks = () => (
  <>
    <path d="M30 100 a56 56 0 0 1 60 -50 M50 112 a40 40 0 0 1 36 -40" className="soft" />
    <circle cx="60" cy="86" r="32" className="wash" />
    <circle cx="142" cy="86" r="32" className="wash" />
    <path d="M60 54 v12 M60 50 l-6 -12 h12z" className="blue" />
    <path d="M152 56 l-4 12" className="red" />
    <path d="M142 50 l-6 -12 h12z" />
  </>
);

/** The order of bolts, from the middle outward. */
const Order = () => (
  <>
    <rect x="18" y="30" width="164" height="80" className="wash" />
    {[
      [100, 52, '1'],
      [100, 90, '2'],
      [68, 90, '3'],
      [132, 52, '4'],
      [132, 90, '5'],
      [68, 52, '6'],
      [36, 52, '7'],
      [164, 90, '8'],
    ].map(([x, y, n]) => (
      <g key={n}>
        <circle cx={x} cy={y} r="12" className={Number(n) < 3 ? 'blue' : undefined} />
        <text x={x} y={Number(y) + 5}>
          {n}
        </text>
      </g>
    ))}
  </>
);

/** A bolt's head turned on by an angle. */
const Angle = () => (
  <g transform="translate(92 78)">
    <path d="M-26 -15 L0 -30 L26 -15 V15 L0 30 L-26 15z" className="wash" />
    <path d="M0 0 V-56" />
    <path d="M0 0 L56 0" className="blue" />
    <path d="M0 -48 a48 48 0 0 1 48 48 M48 0 l-9 -9 M48 0 l7 -10" className="blue" />
    <text x="52" y="-34">
      90°
    </text>
  </g>
);

/** A journal in its bearing, measured across more than one diameter. */
const Bore = () => (
  <g transform="translate(100 70)">
    <circle r="54" />
    <circle r="46" className="wash" />
    <path d="M0 -46 V46" className="blue" />
    <path d="M-33 -33 L33 33" className="blue dash" />
    <path d="M-54 0 h8 M46 0 h8" className="red" />
  </g>
);

/** A blade between cam and follower. */
const Gap = () => (
  <>
    <circle cx="100" cy="40" r="30" className="wash" />
    <path d="M64 78 h72 v40 h-72z" />
    <path d="M20 73 h150" className="blue" />
    <path d="M100 40 v-30" className="soft dash" />
    <circle cx="100" cy="40" r="3" />
  </>
);

/** Two shims that change places. */
const Shim = () => (
  <>
    <rect x="26" y="64" width="54" height="12" className="wash" />
    <rect x="120" y="60" width="54" height="20" className="wash" />
    <path d="M53 54 q46 -40 94 -4 M147 50 l-12 -1 M147 50 l-4 -12" className="blue" />
    <path d="M147 90 q-46 40 -94 4 M53 94 l12 0 M53 94 l4 12" className="blue" />
  </>
);

/** Turned by hand with a long bar. */
const Turn = () => (
  <>
    <circle cx="78" cy="88" r="38" className="wash" />
    <circle cx="78" cy="88" r="9" />
    <path d="M78 88 L180 40" />
    <path d="M172 34 l14 12" />
    <path d="M46 44 a54 54 0 0 1 66 2 M112 46 l-3 -13 M112 46 l-13 1" className="blue" />
  </>
);

/** A cover with its bead, inside the bolts. */
const Cover = () => (
  <>
    <rect x="26" y="24" width="148" height="94" />
    <rect x="40" y="38" width="120" height="66" className="blue dash" />
    {[33, 100, 167].flatMap((x) =>
      [31, 111].map((y) => <circle key={`${x} ${y}`} cx={x} cy={y} r="4" className="wash" />),
    )}
  </>
);

/** Oil, and the pressure that shows. */
const Oil = () => (
  <>
    <path d="M56 24 q-30 44 0 66 q30 -22 0 -66z" className="wash" />
    <g transform="translate(136 76)">
      <path d="M-38 20 a42 42 0 1 1 76 0" />
      <path d="M0 8 L26 -22" className="blue" />
      <path d="M-38 20 l8 -5 M38 20 l-8 -5 M0 -34 v9" />
    </g>
  </>
);

/** Something looked at closely, with light from the side. */
const Look = () => (
  <>
    <circle cx="88" cy="62" r="40" className="wash" />
    <path d="M117 91 L152 126" className="blue" />
    <path d="M88 38 v20 M88 64 l-8 14 h16z" />
    <path d="M150 20 L128 34 M166 44 L136 50" className="soft" />
  </>
);

/** Parts that go back to their own places, by number. */
const Place = () => (
  <>
    {[1, 2, 3].map((n) => (
      <g key={n}>
        <path d={`M${n * 56 - 34} 100 a22 22 0 0 1 44 0 h12 v18 h-68 v-18z`} className="wash" />
        <text x={n * 56 - 12} y="114">
          {n}
        </text>
      </g>
    ))}
    <path d="M44 28 h112 M156 28 l-12 -7 M156 28 l-12 7" className="blue" />
  </>
);

/** A way round what is in the way. */
const Ways = () => (
  <>
    <path d="M30 12 V124 H180" />
    <path d="M78 20 q34 20 22 50 q-24 20 -34 -14z M132 66 q36 6 30 40 q-30 10 -38 -12z" className="wash" />
    <path d="M44 112 V96 H114 V34 H170" className="blue" />
    <circle cx="44" cy="112" r="4" />
    <circle cx="170" cy="34" r="4" className="red" />
  </>
);

/** A signature under what stands. */
const Sign = () => (
  <>
    <rect x="46" y="12" width="108" height="116" className="wash" />
    <path d="M60 34 h80 M60 50 h80 M60 66 h52" className="soft" />
    <path d="M62 106 q12 -26 18 -4 q4 12 14 -8 q8 -14 12 6 q6 8 30 -6" className="blue" />
    <path d="M60 114 h80" />
  </>
);

/** A drawing that is missing does not compile. */
export const DRAWN: Record<Name, ComponentType> = {
  look: Look,
  place: Place,
  wheel: Wheel,
  stop: Stop,
  dial: Dial,
  lobe: Lobe,
  belt: Belt,
  tensioner: Tensioner,
  park: Park,
  marks: Marks,
  order: Order,
  angle: Angle,
  bore: Bore,
  gap: Gap,
  shim: Shim,
  turn: Turn,
  cover: Cover,
  oil: Oil,
  ways: Ways,
  sign: Sign,
};
