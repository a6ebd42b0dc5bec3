/** The engine from its front end: how its rows lean and which way it runs; beside it from above, each cylinder with its number. */
import type { Asked, Draft } from '../api';
import classes from './Picture.module.css';

const REACH = 78;
const UPRIGHT = [0];

/** How far rows lean in the drawing where nobody has said it. */
const USUAL: Record<string, number[]> = { v: [-35, 35], flat: [-90, 90] };

/** To choose from, in the order of the answers. */
const LAYOUTS = [UPRIGHT, [-35, 35], [-90, 90]];

interface LayoutPictureProps {
  view: Draft['view'];
  /** Key of the question. */
  asked: string;
  /** What a tap on one of the layouts, or of the rows, answers; nothing where none is asked. */
  choices: Asked['choices'];
  onAnswer: (text: string) => void;
}

export function LayoutPicture({ view, asked, choices, onAnswer }: LayoutPictureProps) {
  if (!view.layout || asked === 'layout')
    return (
      <div className={classes.picture}>
        <svg viewBox="-110 -110 620 200" role="img" aria-label="In line, V and flat, from the front end">
          {LAYOUTS.map((leans, n) => (
            <g key={leans.join()} transform={`translate(${n * 200} 0)`} {...tap(choices[n], onAnswer)}>
              <FromEnd leans={leans} />
              <text y={64} className={classes.number}>
                {n + 1}
              </text>
            </g>
          ))}
        </svg>
        <p className={classes.legend}>Seen from the front, the cam-drive end</p>
      </div>
    );
  return <Known view={view} choices={choices} onAnswer={onAnswer} />;
}

/** What a tap does; the same is reached by its digit and its button. */
function tap(choice: Asked['choices'][number] | undefined, onAnswer: (text: string) => void) {
  return choice ? { className: classes.tap, onClick: () => onAnswer(choice.value) } : {};
}

function Known({ view, choices, onAnswer }: Omit<LayoutPictureProps, 'asked'>) {
  const usual = USUAL[view.layout] ?? UPRIGHT;
  const leans = view.banks.map((bank, n) => bank.axis_deg ?? usual[n] ?? 0);
  const way = view.questions.find((one) => one.key === 'way')?.answer ?? '';
  const isClockwise = way.startsWith('clockwise') === way.endsWith('front');
  return (
    <div className={classes.picture}>
      <svg viewBox="-130 -110 420 220" role="img" aria-label="The engine from its front end, and from above">
        <FromEnd leans={leans} choices={choices} onAnswer={onAnswer} />
        {way && <Way isClockwise={isClockwise} />}
        <FromAbove view={view} />
      </svg>
      <p className={classes.legend}>
        Seen from the front, the cam-drive end; beside it from above, the front at the top
      </p>
    </div>
  );
}

interface FromEndProps {
  leans: number[];
  choices?: Asked['choices'];
  onAnswer?: (text: string) => void;
}

function FromEnd({ leans, choices = [], onAnswer = () => undefined }: FromEndProps) {
  return (
    <>
      {leans.map((lean, n) => (
        <g key={lean} transform={`rotate(${lean})`} {...tap(choices[n], onAnswer)}>
          <rect x={-19} y={-REACH - 22} width={38} height={64} rx={3} className={classes.body} />
          <rect x={-16} y={-REACH + 4} width={32} height={20} rx={2} className={classes.sheet} />
          <line x1={0} y1={-REACH + 20} x2={0} y2={-16} className={classes.thin} />
          {choices[n] && (
            <text y={-REACH - 30} transform={`rotate(${-lean} 0 ${-REACH - 30})`} className={classes.number}>
              {n + 1}
            </text>
          )}
        </g>
      ))}
      <circle r={24} className={classes.sheet} />
      <circle r={4} className={classes.thin} />
    </>
  );
}

function Way({ isClockwise }: { isClockwise: boolean }) {
  return (
    <g transform={`scale(${isClockwise ? 1 : -1} 1)`}>
      <path d="M -36 10 A 37 37 0 0 1 26 -26" className={classes.blue} />
      <path d="M 34 -18 L 18 -24 L 30 -36 Z" className={classes.arrow} />
    </g>
  );
}

function FromAbove({ view }: { view: Draft['view'] }) {
  const most = Math.max(1, ...view.banks.map((bank) => bank.cylinders.length));
  const gap = Math.min(44, 190 / most);
  const r = Math.min(17, gap * 0.42);
  return (
    <g transform={`translate(${view.banks.length > 1 ? 190 : 210} ${(-gap * (most - 1)) / 2})`}>
      {view.banks.map((bank, n) =>
        (bank.cylinders.length ? bank.cylinders : [null]).map((number, row) => (
          <g key={`${bank.name} ${number}`} transform={`translate(${n * 52} ${row * gap})`}>
            <circle r={r} className={classes.sheet} />
            <text className={classes.number}>{number ?? '?'}</text>
          </g>
        )),
      )}
    </g>
  );
}
