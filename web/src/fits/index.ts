/** What the fits bring to the bench: their inputs by kind of question, their drawing while something is measured. */
import { type Drawings, type Inputs, keyHint } from '../ledger/contract';
import { FitDrawing } from './FitDrawing';
import { FitDecide } from './inputs/FitDecide';
import { FitReadingInput } from './inputs/FitReadingInput';
import { FitsReadyForm } from './inputs/FitsReadyForm';
import { SizesInput } from './inputs/SizesInput';

export const fitInputs: Inputs<'fits_ready' | 'fit_reading' | 'fit_chosen' | 'fit_decided'> = {
  fits_ready: { Input: FitsReadyForm, keys: [keyHint('Enter', 'record'), keyHint('1-9', 'gauge')] },
  fit_reading: {
    Input: FitReadingInput,
    keys: [
      keyHint('Enter', 'record'),
      keyHint('← →', 'place'),
      keyHint('R', 'read it again'),
      keyHint('N', 'from nominal'),
      { ...keyHint('E', 'gauge'), quiet: true },
      { ...keyHint('S', 'paste a sheet'), quiet: true },
    ],
  },
  fit_chosen: { Input: SizesInput, keys: [keyHint('Enter', 'record')] },
  fit_decided: { Input: FitDecide, keys: [keyHint('1-3', 'choose'), keyHint('Enter', 'record')] },
};

export const fitDrawings: Drawings<'measure'> = { measure: FitDrawing };
