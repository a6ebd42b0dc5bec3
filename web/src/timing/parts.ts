/** What degreeing does not need at once; it comes together. */
export { CamChoice } from './inputs/CamChoice';
export { ConfirmStop } from './inputs/ConfirmStop';
export { ConfirmZero } from './inputs/ConfirmZero';
export { MethodChoice } from './inputs/MethodChoice';
export { OppositeInput } from './inputs/OppositeInput';
export { SetupForm } from './inputs/SetupForm';
