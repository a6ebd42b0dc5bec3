/** What degreeing does not need at once; it comes together. */
export { CamChoice } from './inputs/CamChoice';
export { OppositeInput } from './inputs/OppositeInput';
export { SetupForm } from './inputs/SetupForm';
