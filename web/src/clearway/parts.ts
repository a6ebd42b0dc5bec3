/** What is loaded once a way is asked for. */
export { MoveInput } from './inputs/MoveInput';
export { WayDrawing } from './WayDrawing';
