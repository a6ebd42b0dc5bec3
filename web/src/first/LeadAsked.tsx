/** The first three questions, before anybody is signed in: the shop, its first lead, his password. */
import { PasswordInput, TextInput } from '@mantine/core';
import { useState } from 'react';
import { ApiProblem, sentenceOf } from '../api/client';
import { Asked } from './Asked';
import { useBeginShop } from './api';
import classes from './First.module.css';
import type { AskedOf } from './FirstRun';

const HERE = Intl.DateTimeFormat().resolvedOptions().timeZone;

export function ShopAsked({ way, typed, change, onDone }: AskedOf) {
  const zone = typed.zone || HERE;
  return (
    <Asked
      way={way}
      question="What is the shop called?"
      hint="It stands at the head of every paper that is handed over, with times by its own clock."
      on="Go on"
      ready={typed.shop.trim() !== ''}
      onGo={() => {
        change({ zone });
        onDone();
      }}
    >
      <div className={classes.two}>
        <TextInput
          label="The shop"
          autoComplete="organization"
          value={typed.shop}
          onChange={(event) => change({ shop: event.currentTarget.value })}
        />
        <TextInput
          label="Its time zone"
          autoComplete="off"
          value={zone}
          onChange={(event) => change({ zone: event.currentTarget.value })}
        />
      </div>
    </Asked>
  );
}

/** A sign-in name out of a name: its first word, plain letters. */
const short = (name: string) =>
  (name.trim().split(/\s+/)[0] ?? '')
    .normalize('NFKD')
    .replace(/[^\w.-]/g, '')
    .toLowerCase();

export function NameAsked({ way, typed, change, onDone }: AskedOf) {
  return (
    <Asked
      way={way}
      question="Who are you?"
      hint="You are the shop's first lead: you sign records, take engine documents in, and say who works here."
      on="Go on"
      ready={typed.name.trim() !== '' && typed.username.trim() !== ''}
      onGo={onDone}
    >
      <div className={classes.two}>
        <TextInput
          label="Your name, as on tape and paper"
          autoComplete="name"
          value={typed.name}
          onChange={(event) => {
            const name = event.currentTarget.value;
            const follows = typed.username === '' || typed.username === short(typed.name);
            change({ name, ...(follows && { username: short(name) }) });
          }}
        />
        <TextInput
          label="Your sign-in name"
          autoComplete="username"
          value={typed.username}
          onChange={(event) => change({ username: event.currentTarget.value })}
        />
      </div>
    </Asked>
  );
}

export function PasswordAsked({ way, typed, onDone }: AskedOf) {
  const [key, setKey] = useState(() => window.location.hash.slice(1));
  const [knowsKey] = useState(key !== '');
  const [password, setPassword] = useState('');
  const begin = useBeginShop();
  const field = begin.error instanceof ApiProblem ? begin.error.field : '';
  const sentence = begin.error ? sentenceOf(begin.error) : undefined;
  const asksKey = !knowsKey || field === 'key';
  const { shop, zone, username, name } = typed;
  const own = field === 'password' || (field === 'key' && asksKey);
  const go = () =>
    begin.mutate(
      { key: key.trim(), shop: shop.trim(), zone, username: username.trim(), name: name.trim(), password },
      { onSuccess: onDone },
    );
  return (
    <Asked
      way={way}
      question="Your password?"
      hint="For signing in, for people and for what only a lead decides. Eight letters or more, not all digits; a sentence is good."
      on="Begin the shop"
      ready={password !== '' && key.trim() !== ''}
      pending={begin.isPending}
      wrong={own ? undefined : sentence}
      onGo={go}
    >
      <PasswordInput
        label={`Password of ${name}`}
        autoComplete="new-password"
        value={password}
        error={field === 'password' ? sentence : undefined}
        onChange={(event) => setPassword(event.currentTarget.value)}
      />
      {asksKey && (
        <TextInput
          label="Key"
          description="It stands where ./gurvo serve was started, in three groups of four."
          autoComplete="off"
          value={key}
          error={field === 'key' ? sentence : undefined}
          onChange={(event) => setKey(event.currentTarget.value)}
        />
      )}
    </Asked>
  );
}
