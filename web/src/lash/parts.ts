/** All of the lash's screens at the bench, as one piece that is loaded when it is needed. */
export { LashDecide } from './inputs/LashDecide';
export { LashReadingInput } from './inputs/LashReadingInput';
export { LashReadyForm } from './inputs/LashReadyForm';
export { LashStopInput } from './inputs/LashStopInput';
export { ShimsInput } from './inputs/ShimsInput';
export { LashDrawing } from './LashDrawing';
