/** What a document leaves open, a sentence each: doubtful and kept, or not known and so not checked. */
import type { Schemas } from '../api/client';
import page from '../app/Page.module.css';
import classes from './LeftOpen.module.css';

export function LeftOpen({ title, sentences }: { title: string; sentences: Schemas['Fault'][] }) {
  if (sentences.length === 0) return null;
  return (
    <section className={classes.open}>
      <h2>
        {title} · {sentences.length}
      </h2>
      <ul className={page.sentences}>
        {sentences.map((one) => (
          <li key={`${one.path} ${one.sentence}`}>{one.sentence}</li>
        ))}
      </ul>
    </section>
  );
}
