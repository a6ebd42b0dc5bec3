/** What the clearway brings to the bench: its input, and the map that is drawn while a move is asked for. */
import { later } from '../app/later';
import { type DrawingProps, type Inputs, keyHint } from '../ledger/contract';

const parts = () => import('./parts');

export const clearwayInputs: Inputs<'clearway_move'> = {
  clearway_move: {
    Input: later(async () => (await parts()).MoveInput),
    Drawing: later<DrawingProps>(async () => (await parts()).WayDrawing),
    keys: [keyHint('Enter', 'record'), keyHint('1-3', 'choose'), keyHint('A', 'another way')],
  },
};
