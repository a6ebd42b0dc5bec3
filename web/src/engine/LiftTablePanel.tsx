/** A measured lift table turned into a profile: columns and units shown, the plot before it is accepted, suspects in ochre. */
import { Button, FileButton, NativeSelect, Textarea, TextInput } from '@mantine/core';
import { useDebouncedValue } from '@mantine/hooks';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import type { Schemas } from '../api/client';
import page from '../app/Page.module.css';
import { liftTableQuery } from './api';
import classes from './ImportPage.module.css';
import { LobeDrawing } from './LobeDrawing';

type Choices = Partial<Schemas['LiftTableChoices']>;

const QUIET_MS = 400;

export interface LiftTablePanelProps {
  text: string;
  onText: (text: string) => void;
  document: string;
  onDocument: (text: string) => void;
}

export function LiftTablePanel({ text, onText, document, onDocument }: LiftTablePanelProps) {
  const [choices, setChoices] = useState<Choices>({});
  const [quiet] = useDebouncedValue(text, QUIET_MS);
  const { data, error } = useQuery(liftTableQuery(quiet, choices));
  const choose = (change: Choices) => setChoices((old) => ({ ...old, ...change }));
  return (
    <section className={classes.table}>
      <h2>A lobe's profile from a table</h2>
      <p className={page.lead}>CSV with a column of angles and one of lifts, from any zero. Nothing is smoothed.</p>
      <div className={classes.columns}>
        <div>
          <div className={classes.row}>
            <FileButton
              onChange={async (file) => file && onText(await file.text())}
              accept=".csv,.txt,text/csv,text/plain"
            >
              {(props) => (
                <Button variant="default" {...props}>
                  Choose a table
                </Button>
              )}
            </FileButton>
          </div>
          <Textarea
            aria-label="Lift table"
            placeholder={'angle, lift\n0, 0.00'}
            spellCheck={false}
            autosize
            minRows={5}
            maxRows={12}
            value={text}
            onChange={(event) => onText(event.currentTarget.value)}
          />
          {data && data.columns.length > 0 && <ChoiceInputs table={data} onChoose={choose} />}
        </div>
        <div aria-live="polite">
          {error && <p role="alert">{error.message}</p>}
          {data && text && <Read table={data} document={document} onDocument={onDocument} />}
        </div>
      </div>
    </section>
  );
}

function ChoiceInputs({ table, onChoose }: { table: Schemas['LiftTable']; onChoose: (change: Choices) => void }) {
  const { choices, columns } = table;
  const named = columns.map((label, n) => ({ value: String(n), label }));
  return (
    <div className={classes.choices}>
      <NativeSelect
        label="Angles"
        value={String(choices.angle_column ?? 0)}
        data={named}
        onChange={(event) => onChoose({ angle_column: Number(event.currentTarget.value) })}
      />
      <NativeSelect
        label="Lifts"
        value={String(choices.lift_column ?? 1)}
        data={named}
        onChange={(event) => onChoose({ lift_column: Number(event.currentTarget.value) })}
      />
      <NativeSelect
        label="Degrees of"
        value={choices.angles_are ?? 'cam'}
        data={['cam', 'crank']}
        onChange={(event) => onChoose({ angles_are: event.currentTarget.value === 'crank' ? 'crank' : 'cam' })}
      />
      <NativeSelect
        label="Lift in"
        value={choices.lift_unit ?? 'mm'}
        data={['mm', 'in']}
        onChange={(event) => onChoose({ lift_unit: event.currentTarget.value === 'in' ? 'in' : 'mm' })}
      />
      <NativeSelect
        label="Base circle below"
        value={String(choices.base_circle_mm)}
        data={['0', '0.01', '0.02', '0.05', '0.1'].map((mm) => ({ value: mm, label: `${mm} mm` }))}
        onChange={(event) => onChoose({ base_circle_mm: Number(event.currentTarget.value) })}
      />
      <TextInput
        label="Profile's id"
        defaultValue={choices.id}
        onBlur={(event) => event.currentTarget.value && onChoose({ id: event.currentTarget.value })}
      />
    </div>
  );
}

interface ReadProps {
  table: Schemas['LiftTable'];
  document: string;
  onDocument: (text: string) => void;
}

function Read({ table, document, onDocument }: ReadProps) {
  const curve = { id: table.choices.id, cam_deg: table.cam_deg, lobe_lift_mm: table.lobe_lift_mm };
  const whole = table.profile ? withProfile(document, table.profile) : null;
  return (
    <>
      {table.cam_deg.length > 0 && (
        <div className={classes.plot}>
          <LobeDrawing curve={curve} suspects={table.suspects} dots />
        </div>
      )}
      <ul className={classes.said}>
        {table.said.map((sentence) => (
          <li key={sentence}>{sentence}</li>
        ))}
      </ul>
      {table.suspects.length > 0 && (
        <div className={classes.look}>
          {table.suspects.map((suspect) => (
            <p key={suspect.line}>{suspect.sentence}</p>
          ))}
        </div>
      )}
      {table.faults.length > 0 && (
        <div className={classes.stop}>
          <b>This is no lobe yet.</b>
          {table.faults.map((fault) => (
            <p key={fault}>{fault}</p>
          ))}
        </div>
      )}
      {table.profile && whole && (
        <Button onClick={() => onDocument(whole)}>Put it into the document as “{table.profile.id}”</Button>
      )}
      {table.profile && !whole && (
        <Textarea
          label="The profile, for the document's list of profiles"
          readOnly
          autosize
          maxRows={6}
          value={JSON.stringify(table.profile)}
        />
      )}
    </>
  );
}

/** The document's text with a profile put in, in place of one of the same id; null when the text is not plain JSON. */
function withProfile(text: string, profile: Schemas['LiftProfile']): string | null {
  try {
    const data = JSON.parse(text);
    if (!Array.isArray(data.profiles)) return null;
    const at = data.profiles.findIndex((one: { id?: unknown }) => one.id === profile.id);
    if (at >= 0) data.profiles[at] = profile;
    else data.profiles.push(profile);
    return JSON.stringify(data, null, 1);
  } catch {
    return null;
  }
}
