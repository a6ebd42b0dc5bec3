/** What found facts bring to the bench: the input for what the book leaves open. */
import { later } from '../app/later';
import { type Inputs, keyHint } from '../ledger/contract';

export const foundInputs: Inputs<'found'> = {
  found: {
    Input: later(async () => (await import('./inputs/FoundInput')).FoundInput),
    keys: [keyHint('Enter', 'record'), keyHint('1-9', 'choose'), keyHint('N', 'not known, go on')],
    also: (question) => ('to_come' in question && question.to_come.length > 0 ? [keyHint('K', 'none is known')] : []),
  },
};
