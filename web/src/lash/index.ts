/** What valve clearances bring to the bench: their inputs by kind of question, their drawing while they are set. */
import { later } from '../app/later';
import { type Drawings, type Inputs, keyHint } from '../ledger/contract';

const parts = () => import('./parts');

export const lashInputs: Inputs<'lash_ready' | 'lash_reading' | 'lash_shims'> = {
  lash_ready: {
    Input: later(async () => (await parts()).LashReadyForm),
    keys: [keyHint('Enter', 'record'), keyHint('1-9', 'feelers')],
  },
  lash_reading: {
    Input: later(async () => (await parts()).LashReadingInput),
    keys: [keyHint('Enter', 'record, next valve'), keyHint('← →', 'field'), keyHint('P', 'number pad')],
  },
  lash_shims: { Input: later(async () => (await parts()).ShimsInput), keys: [keyHint('Enter', 'record')] },
};

export const lashDrawings: Drawings<'lash'> = { lash: later(async () => (await parts()).LashDrawing) };
