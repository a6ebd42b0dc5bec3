/** A gauge as the lead enters it. */
import { Button, Modal, NativeSelect, TextInput } from '@mantine/core';
import { useQueryClient } from '@tanstack/react-query';
import { type FormEvent, useState } from 'react';
import { isNow } from '../api/again';
import { ApiProblem, client, type Schemas, unwrap } from '../api/client';
import { gaugesQuery } from './api';
import classes from './Gauges.module.css';
import { KINDS, STEEL } from './kinds';

type Gauge = Schemas['GaugeOut'];
type Kind = Gauge['kind'];

const FIELDS = [
  ['name', 'Name'],
  ['resolution', 'Reads to'],
  ['expanded_uncertainty', 'Uncertainty U, as its certificate has it (k = 2)'],
  ['least', 'Range from'],
  ['most', 'Range to'],
  ['calibrated', 'Calibrated, YYYY-MM-DD'],
  ['due', 'Due, YYYY-MM-DD'],
  ['certificate', 'Certificate'],
  ['expansion_um_m_k', 'Grows with warmth, µm/m/K; steel 11.5'],
  ['address', 'Port or URL, if it can be read'],
] as const;
type Key = (typeof FIELDS)[number][0];

interface GaugeFormProps {
  gauge: Gauge | undefined;
  onClose: () => void;
}

export function GaugeForm({ gauge, onClose }: GaugeFormProps) {
  const queries = useQueryClient();
  const [code, setCode] = useState(gauge?.code ?? '');
  const [kind, setKind] = useState<Kind>(gauge?.kind ?? 'wrench');
  const [texts, setTexts] = useState<Record<Key, string>>(() => textsOf(gauge));
  const [wrong, setWrong] = useState<{ field: string; sentence: string } | null>(null);
  const submit = async (event: FormEvent) => {
    event.preventDefault();
    const number = (text: string) => (text.trim() ? Number(text.replace(',', '.')) : null);
    const body: Schemas['GaugeIn'] = {
      name: texts.name,
      kind,
      resolution: number(texts.resolution) ?? 0,
      expanded_uncertainty: number(texts.expanded_uncertainty) ?? 0,
      least: number(texts.least),
      most: number(texts.most),
      calibrated: texts.calibrated || null,
      due: texts.due || null,
      certificate: texts.certificate,
      expansion_um_m_k: number(texts.expansion_um_m_k) ?? STEEL,
      address: texts.address,
    };
    try {
      const all = unwrap(await client.PUT('/api/gauges/{code}', { params: { path: { code } }, body }));
      isNow(queries, gaugesQuery.queryKey, all);
      onClose();
    } catch (error) {
      const said = error instanceof ApiProblem ? error : new ApiProblem(0, 'The server does not answer; try again.');
      setWrong({ field: said.field, sentence: said.message });
    }
  };
  return (
    <Modal opened onClose={onClose} title={gauge ? `${gauge.code} ${gauge.name}` : 'Add a gauge'}>
      <form className={classes.form} onSubmit={submit}>
        {!gauge && (
          <TextInput
            label="Code"
            required
            value={code}
            error={wrong?.field === 'code' ? wrong.sentence : undefined}
            onChange={(event) => setCode(event.currentTarget.value)}
          />
        )}
        <NativeSelect
          label="Kind"
          value={kind}
          data={KINDS}
          error={wrong?.field === 'kind' ? wrong.sentence : undefined}
          onChange={(event) => setKind(KINDS.find((one) => one === event.currentTarget.value) ?? 'wrench')}
        />
        {FIELDS.map(([key, label]) => (
          <TextInput
            key={key}
            label={label}
            required={key === 'name' || key === 'resolution'}
            value={texts[key]}
            error={wrong?.field.endsWith(key) ? wrong.sentence : undefined}
            onChange={(event) => setTexts({ ...texts, [key]: event.currentTarget.value })}
          />
        ))}
        {wrong && <p role="alert">{wrong.sentence}</p>}
        <Button type="submit">Keep it</Button>
      </form>
    </Modal>
  );
}

function textsOf(gauge: Gauge | undefined): Record<Key, string> {
  const text = (key: Key) => String(gauge?.[key] ?? '');
  return {
    name: text('name'),
    resolution: text('resolution'),
    expanded_uncertainty: text('expanded_uncertainty'),
    least: text('least'),
    most: text('most'),
    calibrated: text('calibrated'),
    due: text('due'),
    certificate: text('certificate'),
    expansion_um_m_k: text('expansion_um_m_k') || String(STEEL),
    address: text('address'),
  };
}
