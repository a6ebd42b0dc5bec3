/** What found facts bring to the bench: the input for what the book leaves open. */
import { type Inputs, keyHint } from '../ledger/contract';
import { FoundInput } from './inputs/FoundInput';

export const foundInputs: Inputs<'found'> = {
  found: {
    Input: FoundInput,
    keys: [keyHint('Enter', 'record'), keyHint('1-9', 'choose'), keyHint('N', 'not known, go on')],
  },
};
