/** What the joints bring to the bench: their inputs by kind of question, their drawing while something is tightened. */
import { type Drawings, type Inputs, keyHint } from '../ledger/contract';
import { DecideChoice } from './inputs/DecideChoice';
import { PullInput } from './inputs/PullInput';
import { ReadyForm } from './inputs/ReadyForm';
import { JointDrawing } from './JointDrawing';

export const jointInputs: Inputs<'joint_ready' | 'pull' | 'pull_decided'> = {
  joint_ready: { Input: ReadyForm, keys: [keyHint('Enter', 'record'), keyHint('1-9', 'wrench')] },
  pull: {
    Input: PullInput,
    keys: [
      keyHint('Enter', 'record'),
      keyHint('← →', 'another bolt'),
      keyHint('N', 'unit'),
      keyHint('J', 'this joint'),
    ],
  },
  pull_decided: { Input: DecideChoice, keys: [keyHint('1-3', 'choose'), keyHint('Enter', 'record')] },
};

export const jointDrawings: Drawings<'tighten'> = { tighten: JointDrawing };
