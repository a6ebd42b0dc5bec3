/** The first run, for the lead who is signed in. */
import { usePerson } from '../app/session';
import { FirstRun } from './FirstRun';

export function FirstRoute() {
  return <FirstRun person={usePerson().person} />;
}
