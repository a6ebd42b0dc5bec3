/** The bolts of a joint where they stand; tapped one after another, their order is set. */
import { UnstyledButton } from '@mantine/core';
import { useState } from 'react';
import type { Schemas } from '../../api/client';
import { SpotsDrawing } from '../../engine/SpotsDrawing';
import type { Writing } from '../writing';
import classes from './Picture.module.css';

interface BoltsPictureProps {
  joint: Schemas['JointView'];
  /** Joints that are asked about together, such as the heads of both banks: they are pulled alike. */
  all: Schemas['JointView'][];
  writing: Writing;
  mayWrite: boolean;
}

export function BoltsPicture({ joint, all, writing, mayWrite }: BoltsPictureProps) {
  const [order, setOrder] = useState<string[] | null>(null);
  const many = joint.spots.length;
  const tap = (id: string) => {
    if (order === null) return;
    const next = order.includes(id) ? order.filter((one) => one !== id) : [...order, id];
    setOrder(next);
    if (next.length === many) void take(next);
  };
  const take = async (next: string[]) => {
    for (const one of all)
      if (!(await writing.write({ does: 'set', at: `/joints/${one.id}/order`, value: next }))) return;
    setOrder(null);
  };
  return (
    <div className={classes.picture}>
      <SpotsDrawing joint={joint} now={undefined} {...(order === null ? {} : { order, onTap: tap })} />
      <p className={classes.legend}>
        {order === null
          ? `${joint.name}: ${joint.stages.map((stage) => stage.words).join(', then ')}`
          : `Tap them in the order in which they are pulled: ${order.length} of ${many}`}
        {mayWrite && many > 1 && (
          <UnstyledButton className={classes.order} onClick={() => setOrder(order === null ? [] : null)}>
            {order === null ? 'Set their order by tapping' : 'Leave it as it was'}
          </UnstyledButton>
        )}
      </p>
    </div>
  );
}
