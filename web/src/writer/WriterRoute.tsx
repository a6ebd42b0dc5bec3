/** The draft that the address names, at the question that it names. */
import { useParams, useSearch } from '@tanstack/react-router';
import { WriterPage } from './WriterPage';

export function WriterRoute() {
  const { id } = useParams({ from: '/drafts/$id' });
  const { at } = useSearch({ from: '/drafts/$id' });
  return <WriterPage key={id} id={id} at={at} />;
}
