/** The drawing of just what is asked. */
import type { Schemas } from '../../api/client';
import { SpotsDrawing } from '../../engine/SpotsDrawing';
import type { Asked, Draft } from '../api';
import { CylinderPicture } from './CylinderPicture';
import { FrontPicture } from './FrontPicture';
import { LayoutPicture } from './LayoutPicture';
import classes from './Picture.module.css';

interface PictureProps {
  draft: Draft;
  question: Asked;
  standing: Schemas['Standing'] | undefined;
  go: (key: string) => void;
}

export function Picture({ draft, question, standing, go }: PictureProps) {
  const { kind, focus } = question.picture;
  if (kind === 'layout') return <LayoutPicture view={draft.view} />;
  if (kind === 'cylinder') return <CylinderPicture view={draft.view} />;
  if (kind === 'front') {
    const sort = question.key.split('.')[0];
    const ofWheel = (wheel: string) => draft.view.questions.find((one) => one.key === `${sort}.${wheel}`);
    return (
      <FrontPicture
        front={standing?.front}
        focus={focus}
        mayTap={(wheel) => ofWheel(wheel) !== undefined}
        onTap={(wheel) => go(`${sort}.${wheel}`)}
      />
    );
  }
  const joint = kind === 'bolts' ? standing?.joints.find((one) => groupOf(one.id) === focus) : undefined;
  if (joint)
    return (
      <div className={classes.picture}>
        <SpotsDrawing joint={joint} now={undefined} />
        <p className={classes.legend}>
          {joint.name}: {joint.stages.map((stage) => stage.words).join(', then ')}
        </p>
      </div>
    );
  return <div className={classes.picture} />;
}

/** The ids of joints begin with their group, but for wheels and tensioners, which are called by what the bolt does. */
function groupOf(joint: string): string {
  const first = joint.split('-')[0] ?? '';
  return { bolt: 'wheel', lock: 'tension' }[first] ?? first;
}
