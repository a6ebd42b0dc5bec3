/** What the joints bring to the bench: their inputs by kind of question, their drawing while something is tightened. */
import { later } from '../app/later';
import { type Drawings, type Inputs, keyHint } from '../ledger/contract';

const parts = () => import('./parts');

export const jointInputs: Inputs<'joint_ready' | 'pull'> = {
  joint_ready: {
    Input: later(async () => (await parts()).ReadyForm),
    keys: [keyHint('Enter', 'record'), keyHint('1-9', 'wrench')],
  },
  pull: {
    Input: later(async () => (await parts()).PullInput),
    keys: [
      keyHint('Enter', 'record'),
      keyHint('← →', 'another bolt'),
      keyHint('N', 'unit'),
      keyHint('J', 'this joint'),
    ],
  },
};

export const jointDrawings: Drawings<'tighten'> = { tighten: later(async () => (await parts()).JointDrawing) };
