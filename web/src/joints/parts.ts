/** All of the joints' screens at the bench, as one piece that is loaded when it is needed. */
export { PullInput } from './inputs/PullInput';
export { ReadyForm } from './inputs/ReadyForm';
export { JointDrawing } from './JointDrawing';
