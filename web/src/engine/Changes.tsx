/** Changes between two documents, one sentence each. */
import type { Schemas } from '../api/client';
import page from '../app/Page.module.css';

export function Changes({ changes }: { changes: Schemas['Change'][] }) {
  if (changes.length === 0) return <p>Nothing differs.</p>;
  return (
    <ul className={page.sentences}>
      {changes.map((change) => (
        <li key={`${change.path} ${change.sentence}`}>{change.sentence}</li>
      ))}
    </ul>
  );
}
