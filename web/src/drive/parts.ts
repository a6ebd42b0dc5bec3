/** The drive's screens at the bench, as one piece that is loaded when it is needed. */
export { LayDrawing } from './LayDrawing';
