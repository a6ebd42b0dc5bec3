/** A family's engine as it is drawn once it is built, its covers off. */
import { useQuery } from '@tanstack/react-query';
import { familySceneQuery } from './api';
import classes from './FamilyScene.module.css';
import { ScenePicture } from './ScenePicture';
import { built } from './shown';

export function FamilyScene({ code, number }: { code: string; number: number }) {
  const scene = useQuery(familySceneQuery(code, number)).data;
  if (!scene) return null;
  return (
    <div className={classes.pictures}>
      {scene.views.map((view) => (
        <ScenePicture key={view.looking} scene={scene} view={view} stands={built(view.parts)} asked={[]} />
      ))}
    </div>
  );
}
