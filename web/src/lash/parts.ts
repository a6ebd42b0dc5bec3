/** All of the lash's screens at the bench, as one piece that is loaded when it is needed. */
export { LashReadingInput } from './inputs/LashReadingInput';
export { LashReadyForm } from './inputs/LashReadyForm';
export { ShimsInput } from './inputs/ShimsInput';
export { LashDrawing } from './LashDrawing';
