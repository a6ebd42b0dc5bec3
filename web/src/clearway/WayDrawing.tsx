/** The way on its map, its moves one under the other, and the least gap on it. */
import { useQuery } from '@tanstack/react-query';
import { say, sayLength } from '../app/saying';
import type { DrawingProps } from '../ledger/contract';
import { mapQuery } from './api';
import { MapDrawing } from './MapDrawing';
import classes from './WayDrawing.module.css';
import { type MoveQuestion, useWay } from './way';

export function WayDrawing({ bench, question, voice }: DrawingProps) {
  if (question?.kind !== 'clearway_move') return null;
  return <Drawn {...{ bench, voice }} question={question} />;
}

function Drawn({ bench, question, voice }: Pick<DrawingProps, 'bench' | 'voice'> & { question: MoveQuestion }) {
  const [way] = useWay(bench.engine.serial, question);
  const head = bench.tape[0]?.id ?? '';
  const { data: map } = useQuery({
    ...mapQuery({ serial: bench.engine.serial, head }, 'crank', way?.camshaft ?? ''),
    enabled: way !== undefined,
  });
  if (!way) return <NoWay question={question} />;
  const points = way.path.map(([at = 0, to = 0]) => ({ at, to }));
  const shaft = bench.state.clearway?.shafts.find((one) => one.shaft === way.camshaft);
  const here = points[0] ?? { at: 0, to: 0 };
  return (
    <div className={classes.drawing}>
      {map ? (
        <MapDrawing
          map={map}
          names={['crank', shaft?.name ?? way.camshaft]}
          way={points}
          here={here}
          label={`Map of crank and ${shaft?.name ?? way.camshaft}, with the way: ${way.moves.map((move) => say(move.words, voice)).join('; ')}`}
        />
      ) : (
        <div />
      )}
      {/* biome-ignore lint/a11y/noNoninteractiveTabindex: it scrolls, and whoever has no mouse scrolls it by keys */}
      <section className={classes.side} aria-label="The way" tabIndex={0}>
        {way.gap && (
          <div className={classes.gap}>
            <span>Least gap on this way, as the document describes the engine</span>
            <p>
              <b>{sayLength(way.gap.gap_mm, voice.factor)}</b> ± {sayLength(way.gap.expanded_mm, voice.factor)}
            </p>
            <span>
              {way.gap.words}; wanted {sayLength(way.gap.wanted_mm, voice.factor)}
            </span>
            {way.level === 'meets' && (
              <strong>
                {way.gap.gap_mm < way.gap.wanted_mm
                  ? 'Nearer than wanted: feel every degree.'
                  : 'Where they stand is known to some degrees: it may be nearer than wanted. Feel every degree.'}
              </strong>
            )}
          </div>
        )}
        <ol className={classes.moves}>
          {way.moves.map((move, n) => (
            <li key={`${move.shaft} ${move.by_deg}`} data-now={n === 0}>
              {say(move.words, voice)}
            </li>
          ))}
        </ol>
        <p className={classes.hold}>{say(way.moves[0]?.hold ?? '', voice)}</p>
        {question.ways.length > 1 && (
          <p className={classes.more}>
            <b>A</b> another way, {question.ways.length} in all
            {way.better && `: this one has ${way.better}`}
          </p>
        )}
      </section>
    </div>
  );
}

function NoWay({ question }: { question: MoveQuestion }) {
  return (
    <div className={classes.none}>
      {question.near.length > 0 && (
        <>
          <h2>May touch already</h2>
          <ul>
            {question.near.map((one) => (
              <li key={one}>{one}</li>
            ))}
          </ul>
        </>
      )}
      {question.opens.length > 0 && <p>A way opens with {question.opens.join(' or ')} out.</p>}
      <p>Is it really so? Look once more where each shaft stands.</p>
    </div>
  );
}
