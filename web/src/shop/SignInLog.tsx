/** Who signed in and who tried, newest first. */
import { useQuery } from '@tanstack/react-query';
import classes from '../app/Page.module.css';
import { sayMoment } from '../app/times';
import { signInLogQuery } from './api';
import own from './People.module.css';

export function SignInLog() {
  const { data = [] } = useQuery(signInLogQuery);
  return (
    <section className={`${classes.sheet} ${own.signIns}`} aria-label="Sign-ins">
      <h2 className={own.heading}>Sign-ins</h2>
      <ul className={own.log}>
        {data.map((line) => (
          <li key={`${line.at} ${line.username}`} data-wrong={line.what === 'wrong password'}>
            <time dateTime={line.at}>{sayMoment(line.at)}</time> <b>{line.username}</b> {line.what}
            <small> at {line.place || 'an unknown place'}</small>
          </li>
        ))}
      </ul>
    </section>
  );
}
