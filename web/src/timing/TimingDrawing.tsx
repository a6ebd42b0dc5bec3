/** The wheel, and the figures beside it. */
import { growsClockwise } from '../app/saying';
import type { DrawingProps } from '../ledger/contract';
import { Figures } from './Figures';
import classes from './TimingDrawing.module.css';
import { WheelDrawing } from './WheelDrawing';

export function TimingDrawing({ bench, question, voice }: DrawingProps) {
  const { timing } = bench.state;
  if (!timing) return null;
  return (
    <div className={classes.work}>
      <WheelDrawing timing={timing} question={question} clockwise={growsClockwise(voice)} />
      <Figures timing={timing} question={question} engine={bench.engine} entries={bench.entries} voice={voice} />
    </div>
  );
}
