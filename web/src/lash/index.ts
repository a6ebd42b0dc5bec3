/** What valve clearances bring to the bench: their inputs by kind of question, their drawing while they are set. */
import { type Drawings, type Inputs, keyHint } from '../ledger/contract';
import { LashDecide } from './inputs/LashDecide';
import { LashReadingInput } from './inputs/LashReadingInput';
import { LashReadyForm } from './inputs/LashReadyForm';
import { LashStopInput } from './inputs/LashStopInput';
import { ShimsInput } from './inputs/ShimsInput';
import { LashDrawing } from './LashDrawing';

export const lashInputs: Inputs<'lash_ready' | 'lash_stop' | 'lash_reading' | 'lash_shims' | 'lash_decided'> = {
  lash_ready: { Input: LashReadyForm, keys: [keyHint('Enter', 'record'), keyHint('1-9', 'feelers')] },
  lash_stop: { Input: LashStopInput, keys: [keyHint('Enter', 'it stands there')] },
  lash_reading: {
    Input: LashReadingInput,
    keys: [keyHint('Enter', 'record, next valve'), keyHint('← →', 'field'), keyHint('P', 'number pad')],
  },
  lash_shims: { Input: ShimsInput, keys: [keyHint('Enter', 'record')] },
  lash_decided: { Input: LashDecide, keys: [keyHint('Enter', 'record')] },
};

export const lashDrawings: Drawings<'lash'> = { lash: LashDrawing };
