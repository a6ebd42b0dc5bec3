/** A fit as it is measured: the part with its places, the limits as a band with every place in it, all readings, and what matters now. */
import { UnstyledButton } from '@mantine/core';
import type { Schemas } from '../api/client';
import { say, sayFine, type Voice } from '../app/saying';
import { useSpeak, useSpoken } from '../app/spoken';
import { Verdict } from '../app/Verdict';
import { Cautions } from '../ledger/Cautions';
import type { DrawingProps, Question } from '../ledger/contract';
import { SceneInset } from '../scene/SceneInset';
import { useFitSheet } from './api';
import { Band } from './Band';
import { Chamber } from './Chamber';
import classes from './FitDrawing.module.css';
import { PartPicture } from './PartPicture';
import { SheetTable } from './SheetTable';

/** As the core says it of a fit without limits: "limits" before it would be said twice. */
const NO_LIMIT = 'no limit known';

type Sheet = Schemas['FitSheet'];
type Fit = Schemas['FitView'];
type Place = Fit['places'][number];

/** The fit and the place that a question is about. */
function asked(question: Question | undefined): { step: string; fit: string; place: string | null } | null {
  switch (question?.kind) {
    case 'fit_reading':
    case 'fit_decided':
      return { step: question.step, fit: question.fit, place: question.place };
    case 'fits_ready':
    case 'fit_chosen':
      return { step: question.step, fit: question.fit, place: null };
    default:
      return null;
  }
}

export function FitDrawing({ bench, question, voice, choose }: DrawingProps) {
  const about = asked(question);
  const sheet = useFitSheet(bench, about);
  useSpeak(question?.kind === 'fit_reading' ? question.ask : '');
  if (!about) return <div />;
  const current = bench.state.fits?.fits.find((one) => one.id === about.fit);
  const fit = current ?? sheet?.fit;
  if (!fit) return <div />;
  const now = fit.places.find((one) => one.id === about.place);
  // while a place is being read, what the one before it came to stays in sight
  const shown = now?.verdict ? now : lastRead(fit, now);
  return (
    <div className={classes.fit} data-reading={question?.kind === 'fit_reading'}>
      <div className={classes.picture}>
        <PartPicture fit={fit} now={about.place} />
        <Band fit={fit} now={about.place} voice={voice} />
        {sheet && <SheetTable sheet={sheet} question={question} voice={voice} />}
      </div>
      <div className={classes.beside}>
        {question?.kind === 'fits_ready' && (
          <SceneInset bench={bench} voice={voice} step={about.step} choose={choose} />
        )}
        {shown && <Figure fit={fit} place={shown} judgedBy={bench.engine.judged_by} voice={voice} />}
        {sheet && <Settling sheet={sheet} place={shown?.id} voice={voice} />}
        {sheet && <Trend sheet={sheet} place={shown?.id} voice={voice} />}
        {sheet?.gasket && <Chamber bench={bench} says={sheet.gasket} voice={voice} />}
        <Cautions question={question} />
      </div>
    </div>
  );
}

function lastRead(fit: Fit, now: Place | undefined): Place | undefined {
  const before = now ? fit.places.slice(0, fit.places.indexOf(now)) : fit.places;
  return before.findLast((one) => one.verdict !== null) ?? now ?? fit.places[0];
}

interface FigureProps {
  fit: Fit;
  place: Place;
  judgedBy: string;
  voice: Voice;
}

function Figure({ fit, place, judgedBy, voice }: FigureProps) {
  const [spoken, setSpoken] = useSpoken();
  const name = place.id === 'it' ? fit.name : place.id[0]?.toUpperCase() + place.id.slice(1);
  const fine = (mm: number) => sayFine(mm, voice.factor).split(' ')[0];
  const names = new Map(fit.sides.map((side) => [side.key, side.name]));
  return (
    <section className={classes.figure} aria-label="What it comes to">
      <header>
        <span>
          {name}
          {place.end && `, ${place.end} clearance`}
        </span>
        <UnstyledButton aria-pressed={spoken} onClick={() => setSpoken(!spoken)}>
          {spoken ? 'read aloud' : 'silent'}
        </UnstyledButton>
      </header>
      {place.value_mm != null && place.verdict ? (
        <b>
          {fine(place.value_mm)} <Verdict verdict={place.verdict} />
        </b>
      ) : (
        <b className={classes.open}>
          {place.read} of {place.of}
          <small>read</small>
        </b>
      )}
      <p>
        {fit.limits === NO_LIMIT ? fit.limits : `limits ${say(fit.limits, voice)}`}
        {place.u_mm != null && ` · U = ${fine(place.u_mm)}`}
        {judgedBy && ` · ${judgedBy}`}
      </p>
      {place.outer_mm != null && place.inner_mm != null && (
        <div className={classes.pair}>
          <span>
            {names.get('outer')}, smallest<strong>{fine(place.outer_mm)}</strong>
          </span>
          <span>
            {names.get('inner')}, largest<strong>{fine(place.inner_mm)}</strong>
          </span>
        </div>
      )}
      {place.notes && <p className={classes.notes}>{say(place.notes, voice)}</p>}
      {place.size && <p className={classes.notes}>size {place.size}</p>}
      {place.decided && <p>{place.decided}</p>}
    </section>
  );
}

function Settling({ sheet, place, voice }: { sheet: Sheet; place: string | undefined; voice: Voice }) {
  const ways = sheet.ways.filter((way) => way.place === place);
  if (ways.length === 0) return null;
  const isOut = sheet.fit.places.find((one) => one.id === place)?.verdict === 'out';
  return (
    <section className={classes.settling} aria-label="What would settle it">
      <h2>{isOut ? 'What would bring it in' : 'What would settle it'}</h2>
      {ways.map((way) => (
        <p key={way.words} data-settles={way.settles}>
          {say(way.words, voice)}
        </p>
      ))}
    </section>
  );
}

function Trend({ sheet, place, voice }: { sheet: Sheet; place: string | undefined; voice: Voice }) {
  const line = sheet.trend.find((one) => one.place === place);
  if (!line) return null;
  const fine = (mm: number) => sayFine(mm, voice.factor);
  return (
    <p className={classes.trend}>
      {line.count} {line.count === 1 ? 'other' : 'others'} of this family: {fine(line.mean_mm)}
      {line.count > 1 && `, spread ${fine(line.spread_mm)}`}
    </p>
  );
}
