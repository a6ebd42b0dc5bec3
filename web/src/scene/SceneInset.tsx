/** Where on the engine a step is, small beside what is done there; nothing where the drive's own drawing says it. */
import { useQuery } from '@tanstack/react-query';
import type { Schemas } from '../api/client';
import type { Voice } from '../app/saying';
import { sceneQuery } from './api';
import classes from './FamilyScene.module.css';
import { Lookings, useLooking } from './Lookings';
import { ScenePicture } from './ScenePicture';
import { knownOf } from './shown';

interface SceneInsetProps {
  bench: Schemas['Bench'];
  voice: Voice;
  step: string | undefined;
  choose: (key: string) => void;
}

export function SceneInset({ bench, voice, step, choose }: SceneInsetProps) {
  const crankDeg = Math.round(bench.state.timing?.crank?.cycle_deg ?? 0);
  const scene = useQuery({
    ...sceneQuery(bench.engine.serial, knownOf(bench), crankDeg),
    enabled: step !== undefined,
  }).data;
  const about = scene?.steps.find((one) => one.step === step);
  const ways = scene?.views.map((one) => one.looking) ?? [];
  const { looking, look } = useLooking(step, about?.looking ?? 'side', ways);
  const view = scene?.views.find((one) => one.looking === looking);
  // what is seen from the front alone, the drive's own drawing says
  if (!scene || !view || !ways.some((one) => one === about?.looking) || !about) return null;
  return (
    <div className={classes.inset}>
      <Lookings ways={ways} looking={looking} look={look} />
      <ScenePicture
        scene={scene}
        view={view}
        stands={bench.state.run?.stands ?? {}}
        asked={about.parts}
        bench={bench}
        voice={voice}
        choose={choose}
      />
    </div>
  );
}
