/** What a question is about: what is meant, how it is done by hand, what goes wrong; one drawing; whether it stays open. */
import { Checkbox } from '@mantine/core';
import { useQuery } from '@tanstack/react-query';
import { Waiting } from '../app/Notice';
import { useLikings, usePerson } from '../app/session';
import type { Question } from '../ledger/contract';
import { helpQuery, topicOf } from './api';
import { DRAWN } from './drawings';
import classes from './Help.module.css';
import { Told } from './Told';

interface HelpTopicProps {
  question: Question;
  /** Beside the question, where the field it asks for must stay in sight. */
  small?: boolean;
}

export function HelpTopic({ question, small = false }: HelpTopicProps) {
  const { data } = useQuery(helpQuery);
  const { person } = usePerson();
  const like = useLikings();
  const topic = topicOf(data, question);
  if (!data) return <Waiting what="Looking it up" />;
  if (!topic) return null;
  const Drawing = DRAWN[topic.drawing];
  return (
    <section className={classes.topic} data-small={small} aria-label="What is meant">
      <svg viewBox="0 0 200 140" className={classes.drawing} aria-hidden="true">
        <Drawing />
      </svg>
      <div>
        <h3>{topic.title}</h3>
        <ul>
          <li>
            <Told text={topic.meant} />
          </li>
          {topic.by_hand.map((line) => (
            <li key={line}>
              <b>By hand</b> <Told text={line} />
            </li>
          ))}
          {topic.goes_wrong.map((line) => (
            <li key={line}>
              <b>Goes wrong</b> <Told text={line} />
            </li>
          ))}
        </ul>
        {topic.caution && <p className={classes.caution}>{topic.caution}</p>}
        {!small && <p className={classes.first}>The maker's manual and local rules come first.</p>}
        <Checkbox
          label={small ? 'beside every question' : 'Keep this open beside every question'}
          checked={person.shows_help}
          onChange={(event) => like({ shows_help: event.currentTarget.checked })}
        />
      </div>
    </section>
  );
}
