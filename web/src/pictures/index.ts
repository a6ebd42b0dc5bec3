/** What pictures bring to the bench: the input for one that is needed. */
import { later } from '../app/later';
import { type Inputs, keyHint } from '../ledger/contract';

export const pictureInputs: Inputs<'picture_needed'> = {
  picture_needed: {
    Input: later(async () => (await import('./inputs/PictureInput')).PictureInput),
    keys: [keyHint('Enter', 'take a picture')],
  },
};
