/** What degreeing does not need at once; it comes together. */
export { OppositeInput } from './inputs/OppositeInput';
export { SetupForm } from './inputs/SetupForm';
