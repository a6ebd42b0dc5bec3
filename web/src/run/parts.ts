/** What a run of work does not need at once; it comes together. */
export { Besides } from './inputs/Besides';
export { HoldInput } from './inputs/HoldInput';
export { TurnInput } from './inputs/TurnInput';
