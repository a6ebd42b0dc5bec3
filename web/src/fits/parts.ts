/** All of the fits' screens at the bench, as one piece that is loaded when it is needed. */
export { FitDrawing } from './FitDrawing';
export { FitReadingInput } from './inputs/FitReadingInput';
export { FitsReadyForm } from './inputs/FitsReadyForm';
export { SizesInput } from './inputs/SizesInput';
