/** All rooms' inputs and drawings. A new kind of question, or a new doing, without its own does not compile. */

import { later } from '../app/later';
import { clearwayInputs } from '../clearway';
import { fitDrawings, fitInputs } from '../fits';
import { foundInputs } from '../found';
import { jointDrawings, jointInputs } from '../joints';
import { lashDrawings, lashInputs } from '../lash';
import { type Does, type Drawings, type Inputs, type Kind, keyHint } from '../ledger/contract';
import { pictureInputs } from '../pictures';
import { runDrawings, runInputs } from '../run';
import { timingDrawings, timingInputs } from '../timing';
import { SignOff } from './SignOff';

export const INPUTS: Inputs<Kind> = {
  ...runInputs,
  ...clearwayInputs,
  ...foundInputs,
  ...jointInputs,
  ...fitInputs,
  ...lashInputs,
  ...timingInputs,
  ...pictureInputs,
  sign_off: { Input: SignOff, keys: [keyHint('Enter', 'confirm')] },
};

export const DRAWINGS: Drawings<Does> = {
  ...runDrawings,
  ...jointDrawings,
  ...fitDrawings,
  ...lashDrawings,
  ...timingDrawings,
  sign: later(async () => (await import('./ProofDrawing')).ProofDrawing),
};
