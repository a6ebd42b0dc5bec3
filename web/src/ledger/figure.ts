/** What every field for a measured figure has in common: keys of the screen work while it is typed, the pad comes on touch. */
import type { Refusal } from './contract';

export const figureField = (touch: boolean, wrong: Refusal | null) => ({
  inputMode: touch ? ('none' as const) : ('decimal' as const),
  autoComplete: 'off',
  maxLength: 12,
  'data-figure': '',
  'aria-invalid': wrong !== null,
  'aria-describedby': wrong ? 'wrong' : undefined,
});
