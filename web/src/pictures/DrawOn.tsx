/** Puts rings and arrows with a few words on a picture: by touch, by keys, one after the other. */
import { Button, SegmentedControl, TextInput, UnstyledButton } from '@mantine/core';
import { type ReactNode, useState } from 'react';
import type { OnPicture } from './api';
import { DrawnOn } from './DrawnOn';
import classes from './TakePicture.module.css';

const MOST = 12;

interface DrawOnProps {
  src: string;
  drawn: OnPicture[];
  onDraw: (drawn: OnPicture[]) => void;
  children?: ReactNode;
}

export function DrawOn({ src, drawn, onDraw, children }: DrawOnProps) {
  const [form, setForm] = useState<OnPicture['is_a']>('ring');
  const add = (x: number, y: number) => onDraw([...drawn, { is_a: form, x, y, says: '' }].slice(-MOST));
  const change = (n: number, part: Partial<OnPicture>) =>
    onDraw(drawn.map((one, at) => (at === n ? { ...one, ...part } : one)));
  return (
    <>
      <DrawnOn src={src} alt="What was taken" drawn={drawn} onPoint={add} />
      <div className={classes.tools}>
        <SegmentedControl
          aria-label="Touch the picture for"
          value={form}
          onChange={(value) => setForm(value === 'arrow' ? 'arrow' : 'ring')}
          data={[
            { value: 'ring', label: 'a ring' },
            { value: 'arrow', label: 'an arrow' },
          ]}
        />
        <Button variant="default" onClick={() => add(0.5, 0.5)}>
          Put one in the middle
        </Button>
        {children}
      </div>
      {drawn.map((one, n) => (
        <div key={n} className={classes.words}>
          <TextInput
            aria-label={`What ${one.is_a} ${n + 1} is at`}
            placeholder={`What the ${one.is_a} is at`}
            maxLength={80}
            value={one.says}
            onChange={(event) => change(n, { says: event.currentTarget.value })}
          />
          <Nudge
            name={`${one.is_a} ${n + 1}`}
            onMove={(x, y) => change(n, { x: share(one.x + x), y: share(one.y + y) })}
          />
          <UnstyledButton onClick={() => onDraw(drawn.filter((_, at) => at !== n))}>take off</UnstyledButton>
        </div>
      ))}
    </>
  );
}

const share = (value: number) => Math.min(1, Math.max(0, value));

/** Moves one by keys or small touches, where a finger is too wide. */
function Nudge({ name, onMove }: { name: string; onMove: (x: number, y: number) => void }) {
  return (
    <span className={classes.nudge}>
      {(
        [
          ['←', 'left', -0.02, 0],
          ['→', 'right', 0.02, 0],
          ['↑', 'up', 0, -0.02],
          ['↓', 'down', 0, 0.02],
        ] as const
      ).map(([sign, way, x, y]) => (
        <UnstyledButton key={way} aria-label={`${name} ${way}`} onClick={() => onMove(x, y)}>
          {sign}
        </UnstyledButton>
      ))}
    </span>
  );
}
