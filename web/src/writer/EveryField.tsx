/** Everything that the format can say, one place at a time: as a form, and beside it as JSON. */
import { Button, NativeSelect, Select, TextInput } from '@mantine/core';
import type { IChangeEvent } from '@rjsf/core';
import type { RJSFSchema } from '@rjsf/utils';
import { useQuery } from '@tanstack/react-query';
import { type FormEvent, useState } from 'react';
import type { Schemas } from '../api/client';
import type { KeyAction } from '../app/keys';
import { Notice, Waiting } from '../app/Notice';
import { type Draft, formQuery } from './api';
import classes from './EveryField.module.css';
import { FieldsForm } from './FieldsForm';
import { JsonEditor } from './JsonEditor';
import { Proposals, type Proposed } from './Proposals';
import { Screen } from './Screen';
import { faultsAt, KINDS, LOOK } from './shapes';
import type { Writing } from './writing';

type PlaceForm = Schemas['PlaceForm'];
type Place = PlaceForm['places'][number];
type Value = Schemas['PlaceIn']['value'];

interface EveryFieldProps {
  draft: Draft;
  writing: Writing;
  /** Where: a pointer, or the path that a fault names. */
  place: string;
  onPlace: (place: string) => void;
  faults: Schemas['Standing']['faults'];
  proposed: Proposed;
  /** Keys that work on every screen of a draft. */
  common: KeyAction[];
}

export function EveryField(props: EveryFieldProps) {
  const { draft, place, onPlace, common } = props;
  const { data: form, error, refetch } = useQuery(formQuery(draft.id, draft.changes, place));
  if (!form)
    return error ? (
      <Screen actions={common}>
        <Notice title="This place cannot be shown" retry={() => refetch()}>
          {error.message} <Button onClick={() => onPlace('')}>The engine</Button>
        </Notice>
      </Screen>
    ) : (
      <Waiting what="Making its form" />
    );
  return <OnePlace key={form.at} {...props} form={form} />;
}

function OnePlace({ draft, writing, onPlace, faults, proposed, common, form }: EveryFieldProps & { form: PlaceForm }) {
  const of = proposed.all.filter((one) => 'at' in one.edit && `${one.edit.at}/`.startsWith(`${form.at || '/?'}/`));
  const [typed, setTyped] = useState<Value>();
  const [text, setText] = useState<string>();
  const value = typed === undefined ? form.value : typed;
  const here = form.places.find((one) => one.at === form.at);
  const isRead = text === undefined || typed !== undefined;
  const write = (next: Value) => {
    setTyped(next);
    setText(undefined);
  };
  const writeText = (next: string) => {
    if (next === (text ?? shownAs(value))) return;
    setText(next);
    setTyped(read(next));
  };
  const asItWas = () => {
    setTyped(undefined);
    setText(undefined);
  };
  const keep = async () => {
    if (typed !== undefined && (await writing.fillPlace(form.at, typed))) asItWas();
  };
  return (
    <Screen actions={common} isLong>
      <div className={classes.all}>
        <div className={classes.head}>
          <h1>{here?.name ?? 'Every field'}</h1>
          <Select
            aria-label="Which place"
            searchable
            selectFirstOptionOnChange
            allowDeselect={false}
            maxDropdownHeight={420}
            value={form.at || 'engine'}
            data={grouped(form.places)}
            onChange={(chosen) => chosen !== null && onPlace(chosen === 'engine' ? '' : chosen)}
          />
        </div>
        {writing.trouble && <p role="alert">{writing.trouble.sentence}</p>}
        {here?.sort === 'list' ? (
          <Members form={form} list={here} draft={draft} writing={writing} onPlace={onPlace} />
        ) : (
          <>
            {draft.may_write && (
              <div className={classes.foot}>
                {here?.sort === 'member' && (
                  <Button
                    variant="default"
                    data-far
                    onClick={() =>
                      void writing
                        .write({ does: 'remove', at: form.at })
                        .then((after) => after && onPlace(form.at.slice(0, form.at.lastIndexOf('/'))))
                    }
                  >
                    Take it out
                  </Button>
                )}
                <Button variant="default" disabled={typed === undefined && text === undefined} onClick={asItWas}>
                  As it was
                </Button>
                <Button disabled={typed === undefined} onClick={() => void keep()}>
                  Keep
                </Button>
              </div>
            )}
            {!isRead && <p role="alert">This is no JSON yet: look at the line that is marked.</p>}
            <Proposals {...proposed} title="Of this, from the bench" all={of} first={proposed.all[0]?.id} />
            <div className={classes.both}>
              <FieldsForm
                className={classes.form ?? ''}
                schema={form.json_schema as RJSFSchema}
                uiSchema={LOOK}
                validator={KINDS}
                formData={value}
                noValidate
                noHtml5Validate
                showErrorList={false}
                disabled={!draft.may_write}
                extraErrors={faultsAt(form.path, faults)}
                experimental_defaultFormStateBehavior={{
                  emptyObjectFields: 'skipDefaults',
                  arrayMinItems: { populate: 'never' },
                }}
                onChange={(event: IChangeEvent) => write(event.formData as Value)}
                onSubmit={() => void keep()}
              />
              <JsonEditor
                label={`${here?.name ?? 'This place'} as JSON`}
                value={text ?? shownAs(value)}
                editable={draft.may_write}
                onChange={writeText}
              />
            </div>
          </>
        )}
      </div>
    </Screen>
  );
}

/** The places under the lists that they belong to. */
function grouped(places: Place[]) {
  const groups: { group: string; items: { value: string; label: string }[] }[] = [{ group: 'The engine', items: [] }];
  for (const one of places) {
    const isList = one.sort === 'list' && places.some((other) => other.at.startsWith(`${one.at}/`));
    if (isList) groups.push({ group: one.name, items: [] });
    const group = one.depth === 0 && !isList ? groups[0] : groups.at(-1);
    group?.items.push({ value: one.at || 'engine', label: isList ? `${one.name}: all` : one.name });
  }
  return groups;
}

function shownAs(value: Value): string {
  return JSON.stringify(value, null, 1);
}

function read(text: string): Value | undefined {
  try {
    return JSON.parse(text) as Value;
  } catch {
    return undefined;
  }
}

interface MembersProps {
  form: PlaceForm;
  list: Place;
  draft: Draft;
  writing: Writing;
  onPlace: (place: string) => void;
}

/** A list whose members have places of their own: they are opened, and one more is added by a short name. */
function Members({ form, list, draft, writing, onPlace }: MembersProps) {
  const [id, setId] = useState('');
  const [kind, setKind] = useState(list.kinds[0] ?? '');
  const members = form.places.filter(
    (one) => one.sort === 'member' && one.at.slice(0, one.at.lastIndexOf('/')) === list.at,
  );
  const add = async (event: FormEvent) => {
    event.preventDefault();
    const value = { ...(kind ? { kind } : {}), id: id.trim() };
    if (value.id && (await writing.write({ does: 'add', to: list.at, value }))) onPlace(`${list.at}/${value.id}`);
  };
  return (
    <>
      {members.length === 0 && <p className={classes.none}>None is described yet.</p>}
      <ul className={classes.members}>
        {members.map((one) => (
          <li key={one.at}>
            <Button variant="default" onClick={() => onPlace(one.at)}>
              {one.name}
            </Button>
          </li>
        ))}
      </ul>
      {draft.may_write && (
        <form className={classes.foot} onSubmit={add}>
          {list.kinds.length > 1 && (
            <NativeSelect
              label="It is"
              data={list.kinds}
              value={kind}
              onChange={(event) => setKind(event.currentTarget.value)}
            />
          )}
          <TextInput
            label="One more, its short name"
            description="Letters, digits, - and no spaces"
            value={id}
            onChange={(event) => setId(event.currentTarget.value)}
          />
          <Button type="submit" disabled={!id.trim()}>
            Add
          </Button>
        </form>
      )}
    </>
  );
}
