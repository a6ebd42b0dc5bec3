/** Joints that are pulled bolt by bolt: where their fasteners stand, in which order, through which stages; to be looked at before use. */
import type { Schemas } from '../api/client';
import classes from './FamilyPage.module.css';
import { SpotsDrawing } from './SpotsDrawing';

export function JointOrders({ joints }: { joints: Schemas['JointView'][] }) {
  return (
    <div className={classes.orders}>
      {joints.map((joint) => (
        <figure key={joint.id}>
          <figcaption>
            <b>{joint.name}</b>
            <span>{joint.about.join(', ')}</span>
            <span>{joint.stages.map((stage) => stage.words).join(', then ')}</span>
            {!joint.is_to_scale && <span>not to scale</span>}
          </figcaption>
          <SpotsDrawing joint={joint} now="" />
        </figure>
      ))}
    </div>
  );
}
