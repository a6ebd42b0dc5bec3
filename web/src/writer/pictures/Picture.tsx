/** The drawing of just what is asked. */
import type { Schemas } from '../../api/client';
import type { Asked, Draft } from '../api';
import type { Writing } from '../writing';
import { BoltsPicture } from './BoltsPicture';
import { CylinderPicture } from './CylinderPicture';
import { FrontPicture } from './FrontPicture';
import { LayoutPicture } from './LayoutPicture';
import classes from './Picture.module.css';

interface PictureProps {
  draft: Draft;
  question: Asked;
  standing: Schemas['Standing'] | undefined;
  go: (key: string) => void;
  /** Answers by a tap on the drawing. */
  onAnswer: (text: string) => void;
  writing: Writing;
}

export function Picture({ draft, question, standing, go, onAnswer, writing }: PictureProps) {
  const { kind, focus } = question.picture;
  if (kind === 'layout') {
    const tapped = TAPPED.includes(question.key) && draft.may_write ? question.choices : [];
    return <LayoutPicture view={draft.view} asked={question.key} choices={tapped} onAnswer={onAnswer} />;
  }
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
  const joints = kind === 'bolts' ? (standing?.joints ?? []).filter((one) => groupOf(one.id) === focus) : [];
  if (joints[0]) return <BoltsPicture joint={joints[0]} all={joints} writing={writing} mayWrite={draft.may_write} />;
  return <div className={classes.picture} />;
}

/** Questions of the layout that a tap on it answers. */
const TAPPED = ['layout', 'sides'];

/** The ids of joints begin with their group, but for wheels and tensioners, which are called by what the bolt does. */
function groupOf(joint: string): string {
  const first = joint.split('-')[0] ?? '';
  return { bolt: 'wheel', lock: 'tension' }[first] ?? first;
}
