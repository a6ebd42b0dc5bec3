/** What the fits bring to the bench: their inputs by kind of question, their drawing while something is measured. */
import { later } from '../app/later';
import { type Drawings, type Inputs, keyHint } from '../ledger/contract';

const parts = () => import('./parts');

export const fitInputs: Inputs<'fits_ready' | 'fit_reading' | 'fit_chosen'> = {
  fits_ready: {
    Input: later(async () => (await parts()).FitsReadyForm),
    keys: [keyHint('Enter', 'record'), keyHint('1-9', 'gauge')],
  },
  fit_reading: {
    Input: later(async () => (await parts()).FitReadingInput),
    keys: [
      keyHint('Enter', 'record'),
      keyHint('← →', 'place'),
      keyHint('R', 'read it again'),
      keyHint('N', 'from nominal'),
      { ...keyHint('E', 'gauge'), quiet: true },
      { ...keyHint('S', 'paste a sheet'), quiet: true },
    ],
  },
  fit_chosen: { Input: later(async () => (await parts()).SizesInput), keys: [keyHint('Enter', 'record')] },
};

export const fitDrawings: Drawings<'measure'> = { measure: later(async () => (await parts()).FitDrawing) };
