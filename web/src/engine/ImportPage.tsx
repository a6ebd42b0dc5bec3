/** Checks an engine document and takes it in: every fault with its path, nothing half-saved, what would change in plain words. */
import { Button, FileButton, Textarea, TextInput } from '@mantine/core';
import { useDebouncedValue, useDocumentTitle } from '@mantine/hooks';
import { useQuery } from '@tanstack/react-query';
import { Link, useNavigate } from '@tanstack/react-router';
import { useState } from 'react';
import type { Schemas } from '../api/client';
import page from '../app/Page.module.css';
import { usePerson } from '../app/session';
import { useDraft } from '../ledger/draft';
import { checkQuery, useImport, walkQuery } from './api';
import { Changes } from './Changes';
import classes from './ImportPage.module.css';
import { LeftOpen } from './LeftOpen';
import { LiftTablePanel } from './LiftTablePanel';

const EMPTY = { text: '', remark: '', table: '' };
const QUIET_MS = 400;

export function ImportPage() {
  useDocumentTitle('Check or take in a document · Gurvo');
  const { person } = usePerson();
  const [draft, change, forget] = useDraft('import', EMPTY);
  const [text] = useDebouncedValue(draft.text, QUIET_MS);
  const check = useQuery(checkQuery(text));
  const take = useImport();
  const navigate = useNavigate();
  const [unread, setUnread] = useState('');
  const read = async (file: File | null) => {
    if (!file) return;
    try {
      change({ text: new TextDecoder('utf-8', { fatal: true }).decode(await file.arrayBuffer()) });
      setUnread('');
    } catch {
      setUnread(`${file.name} is no text in UTF-8; save it as such and choose it again.`);
    }
  };
  const current = text === draft.text ? check.data : undefined;
  const walk = useQuery(walkQuery(text, current?.faults.length === 0));
  const takeIn = () =>
    take.mutate(
      { text: draft.text, remark: draft.remark },
      {
        onSuccess: (family) => {
          forget();
          navigate({ to: '/families/$code', params: { code: family.code } });
        },
      },
    );
  return (
    <main className={page.page}>
      <p className={page.lead}>
        <Link to="/families">Families</Link>
      </p>
      <h1>{person.role === 'lead' ? 'Check or take in a document' : 'Check a document'}</h1>
      <p className={page.lead}>
        JSON, or JSON5 with comments; what is kept is plain JSON without them. Nothing is kept until it is taken in.
      </p>
      <div className={classes.columns}>
        <section className={classes.side}>
          <div className={classes.row}>
            <FileButton onChange={read} accept=".json,.json5,application/json,text/plain">
              {(props) => (
                <Button variant="default" {...props}>
                  Choose a file
                </Button>
              )}
            </FileButton>
            {draft.text && (
              <Button variant="default" onClick={forget}>
                Clear
              </Button>
            )}
          </div>
          {unread && <p role="alert">{unread}</p>}
          <Textarea
            label="Document"
            placeholder="Paste it here"
            spellCheck={false}
            autoFocus
            classNames={{ input: classes.text ?? '' }}
            value={draft.text}
            onChange={(event) => change({ text: event.currentTarget.value })}
          />
        </section>
        <section className={classes.side} aria-live="polite">
          <h2>What it says</h2>
          <Verdict text={draft.text} check={current} error={check.error} />
          {current?.faults.length === 0 && <Walk walked={walk.data} error={walk.error} />}
          {current && current.faults.length === 0 && !walk.data?.stuck.length && person.role === 'lead' && (
            <form
              className={classes.take}
              onSubmit={(event) => {
                event.preventDefault();
                takeIn();
              }}
            >
              <TextInput
                label="Why"
                placeholder="kept beside the revision"
                value={draft.remark}
                onChange={(event) => change({ remark: event.currentTarget.value })}
              />
              <Button type="submit" loading={take.isPending}>
                Take it in as revision {current.revision}
              </Button>
            </form>
          )}
          {take.error && <p role="alert">{take.error.message}</p>}
        </section>
      </div>
      <LiftTablePanel
        text={draft.table}
        onText={(table) => change({ table })}
        document={draft.text}
        onDocument={(next) => change({ text: next })}
      />
    </main>
  );
}

function Faults({ faults }: { faults: Schemas['Fault'][] }) {
  return (
    <>
      <p className={classes.stop}>
        <b>Cannot be taken in.</b> {faults.length === 1 ? 'One fault' : `${faults.length} faults`}:
      </p>
      <ol className={`${page.sentences} ${classes.faults}`}>
        {faults.map((fault) => (
          <li key={`${fault.path} ${fault.sentence}`}>
            <code>{fault.path || 'the whole text'}</code>
            {fault.sentence}
          </li>
        ))}
      </ol>
    </>
  );
}

/** Whether somebody who answers everything rightly gets from nothing to a signed record. */
function Walk({ walked, error }: { walked: Schemas['Walked'] | undefined; error: Error | null }) {
  if (error) return <p role="alert">{error.message}</p>;
  if (!walked) return <p className={page.lead}>Going through its run of work, step by step</p>;
  if (walked.stuck.length > 0) return <Faults faults={walked.stuck} />;
  if (walked.steps === 0) return null;
  return (
    <p className={page.lead}>
      Gone through from nothing to a signed record: {walked.steps} steps, {walked.entries} entries.
    </p>
  );
}

interface VerdictProps {
  text: string;
  check: Schemas['CheckedOut'] | undefined;
  error: Error | null;
}

function Verdict({ text, check, error }: VerdictProps) {
  if (!text.trim()) return <p className={page.lead}>Choose a file or paste a document; its faults are listed here.</p>;
  if (error) return <p role="alert">{error.message}</p>;
  if (!check) return <p className={page.lead}>Looking through it</p>;
  if (check.faults.length > 0) return <Faults faults={check.faults} />;
  return (
    <>
      <p className={classes.sound}>
        <b>Sound.</b> {check.name}, {check.layout}.{' '}
        {check.revision === 1 ? 'A new family.' : `It would be revision ${check.revision}; this differs from the last:`}
      </p>
      {check.revision !== 1 && <Changes changes={check.changes} />}
      <LeftOpen title="Doubtful" sentences={check.doubtful} />
      <LeftOpen title="Not known, so not checked" sentences={check.not_known} />
    </>
  );
}
