/** What the shop is called on papers that are handed over, and by whose clock they are dated. */
import { Button, FileButton, NativeSelect, TextInput } from '@mantine/core';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { askAgain, isNow } from '../api/again';
import { sentenceOf } from '../api/client';
import classes from '../app/Page.module.css';
import { letterheadQuery, setLetterhead, setMark } from './api';
import own from './People.module.css';

export function Letterhead() {
  const { data } = useQuery(letterheadQuery);
  const queries = useQueryClient();
  const [typed, setTyped] = useState<Partial<NonNullable<typeof data>>>({});
  const keep = useMutation({
    mutationFn: setLetterhead,
    onSuccess: async () => {
      setTyped({});
      await askAgain(queries, { queryKey: letterheadQuery.queryKey });
    },
  });
  const mark = useMutation({
    mutationFn: setMark,
    onSuccess: (said) => isNow(queries, letterheadQuery.queryKey, said),
  });
  if (!data) return null;
  const now = { ...data, ...typed };
  const field = (key: 'name' | 'address' | 'zone', label: string, placeholder: string) => (
    <TextInput
      label={label}
      placeholder={placeholder}
      value={now[key]}
      onChange={(event) => setTyped({ ...typed, [key]: event.currentTarget.value })}
    />
  );
  return (
    <section className={`${classes.sheet} ${own.choice} ${own.hours}`} aria-label="Head of papers">
      {field('name', 'The shop on paper', 'its name')}
      {field('address', 'Its address', 'street, place')}
      {field('zone', 'Its time zone', 'Europe/Zurich')}
      <NativeSelect
        label="Its paper"
        data={['A4', 'Letter']}
        value={now.paper}
        onChange={(event) => setTyped({ ...typed, paper: event.currentTarget.value === 'Letter' ? 'Letter' : 'A4' })}
      />
      <Button
        variant="default"
        disabled={!now.name.trim() || Object.keys(typed).length === 0}
        loading={keep.isPending}
        onClick={() => keep.mutate(now)}
      >
        Keep it
      </Button>
      <div className={own.mark}>
        {data.mark && <img src={data.mark} alt="The shop's mark" />}
        <FileButton onChange={(file) => file && mark.mutate(file)} accept="image/*">
          {(props) => (
            <Button variant="default" loading={mark.isPending} {...props}>
              {data.mark ? 'Another mark' : "The shop's own mark"}
            </Button>
          )}
        </FileButton>
        {data.mark && (
          <Button variant="default" onClick={() => mark.mutate(null)}>
            Without
          </Button>
        )}
      </div>
      {mark.error && <p role="alert">{sentenceOf(mark.error)}</p>}
      {keep.error && <p role="alert">{sentenceOf(keep.error)}</p>}
    </section>
  );
}
