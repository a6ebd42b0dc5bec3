/** The door of a paired device: who is here, by name and PIN. */
import { useQuery } from '@tanstack/react-query';
import { Mark } from '../app/Mark';
import { hereQuery } from '../shop/api';
import here from '../shop/Here.module.css';
import { Rim } from '../shop/Rim';
import classes from '../shop/SignIn.module.css';
import { WhoForm } from '../shop/WhoForm';
import { useAtBench } from './api';

export function AtBench({ bench }: { bench: string }) {
  const people = useQuery(hereQuery).data;
  const signIn = useAtBench();
  return (
    <main className={classes.page}>
      <div className={classes.sheet}>
        <Mark />
        <h1>{bench}</h1>
        {people && (
          <WhoForm
            people={people}
            first={people.length === 1 ? (people[0]?.username ?? '') : ''}
            button={() => 'I am here'}
            error={signIn.error?.message}
            pending={signIn.isPending}
            onSay={(said, refused) => signIn.mutate(said, { onError: refused })}
          >
            <p className={here.soft}>Whoever has no PIN yet takes the password; the lead gives PINs.</p>
          </WhoForm>
        )}
      </div>
      <Rim />
    </main>
  );
}
