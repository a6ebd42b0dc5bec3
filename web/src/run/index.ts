/** What the run brings to the bench: its inputs by kind of question, its drawings by what is done. */
import { later } from '../app/later';
import { type DrawingProps, type Drawings, type Inputs, keyHint, type Question } from '../ledger/contract';
import { isLaid } from './asked';
import { StepInput } from './inputs/StepInput';

const parts = () => import('./parts');

const allMeetHint = (question: Question) =>
  'looks' in question && question.looks.length > 0 ? [keyHint('0', 'all meet')] : [];

export const runInputs: Inputs<'step_done' | 'turn_seen' | 'hold_point'> = {
  step_done: {
    Input: StepInput,
    keys: [keyHint('Enter', 'record'), keyHint('1-9', 'choose')],
    also: (question) => [
      ...allMeetHint(question),
      ...(isLaid(question) ? [] : [keyHint('V', 'side, above, front')]),
      ...(isLaid(question) ? [keyHint('← →', 'try a turn'), keyHint('A', 'another way')] : []),
    ],
  },
  turn_seen: {
    Input: later(async () => (await parts()).TurnInput),
    keys: [keyHint('Enter', 'record'), keyHint('1-5', 'choose')],
    also: allMeetHint,
  },
  hold_point: { Input: later(async () => (await parts()).HoldInput), keys: [keyHint('Enter', 'sign')] },
};

const RunDrawing = later<DrawingProps>(async () => (await import('./RunDrawing')).RunDrawing);

export const runDrawings: Drawings<'run' | 'variant'> = { run: RunDrawing, variant: RunDrawing };
