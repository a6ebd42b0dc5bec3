/** What a run of work does not need at once; it comes together. */
export { Besides } from './inputs/Besides';
export { HardStopInput } from './inputs/HardStopInput';
export { HoldInput } from './inputs/HoldInput';
export { PlugsInput } from './inputs/PlugsInput';
export { TurnInput } from './inputs/TurnInput';
export { VariantChoice } from './inputs/VariantChoice';
