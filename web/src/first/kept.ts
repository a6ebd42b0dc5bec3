/** How far the first run has come, kept on this machine until it is done, with what was typed; never a password. */
import { useDraft } from '../ledger/draft';

export const QUESTIONS = 10;
export const OF_THE_LEAD = 3;

const BEGUN = { at: 1, shop: '', zone: '', name: '', username: '', engine: '', isDone: false };
export type Typed = typeof BEGUN;

export const useFirstRun = () => useDraft('first-run', BEGUN);
