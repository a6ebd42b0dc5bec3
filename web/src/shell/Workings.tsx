/** Figures without an engine: one bolt, one span of belt, one chain. */
import page from '../app/Page.module.css';
import { DriveWorkings } from '../drive/DriveWorkings';
import { BoltWorkings } from '../joints/BoltWorkings';

export function Workings() {
  return (
    <main className={page.page}>
      <h1>Workings</h1>
      <p className={page.lead}>With no engine. A figure here is worked out, not the maker's: the manual comes first.</p>
      <BoltWorkings />
      <DriveWorkings />
    </main>
  );
}
