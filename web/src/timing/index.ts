/** What the timing brings to the bench: its inputs by kind of question, its drawings by what is done. */
import { later } from '../app/later';
import { type Drawings, type Inputs, keyHint } from '../ledger/contract';
import { ReadingInput } from './inputs/ReadingInput';
import { TimingDrawing } from './TimingDrawing';

const parts = () => import('./parts');
const READING = [
  keyHint('Enter', 'record'),
  keyHint('B / A', 'before, after'),
  keyHint('D', 'TDC / BDC'),
  keyHint('T', 'how it came'),
  keyHint('P', 'number pad'),
];

export const timingInputs: Inputs<'wheel_setup' | 'wheel_check' | 'tdc_reading' | 'lift_reading'> = {
  wheel_setup: {
    Input: later(async () => (await parts()).SetupForm),
    keys: [keyHint('Enter', 'record'), keyHint('1-3', 'numbering'), keyHint('R', 'runs'), keyHint('X', 'plugs out')],
  },
  wheel_check: {
    Input: later(async () => (await parts()).OppositeInput),
    keys: [keyHint('Enter', 'record'), keyHint('Tab', 'next figure')],
  },
  tdc_reading: { Input: ReadingInput, keys: READING },
  lift_reading: { Input: ReadingInput, keys: READING },
};

export const timingDrawings: Drawings<'set_up_wheel' | 'find_tdc' | 'degree'> = {
  set_up_wheel: TimingDrawing,
  find_tdc: TimingDrawing,
  degree: TimingDrawing,
};

export { TimingDrawing };
