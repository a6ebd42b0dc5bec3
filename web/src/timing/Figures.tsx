/** The figures beside the wheel: what has been found, what the card says, what can be done. The server worked them out. */
import { type ReactNode, Suspense } from 'react';
import type { Schemas } from '../api/client';
import { later } from '../app/later';
import { say, sayDegrees, type Voice } from '../app/saying';
import { Verdict } from '../app/Verdict';
import type { Question } from '../ledger/contract';
import { camAsked } from './asked';
import classes from './Figures.module.css';

const Causes = later(async () => (await import('./Causes')).Causes);

export interface FiguresProps {
  timing: Schemas['TimingView'];
  question: Question | undefined;
  engine: Schemas['EngineHead'];
  entries: number;
  voice: Voice;
}

export function Figures({ timing, question, engine, entries, voice }: FiguresProps) {
  const early = question?.kind === 'wheel_setup' || question?.key.startsWith('tdc:');
  return (
    <div className={classes.figures}>
      {early ? (
        <TdcFigures timing={timing} />
      ) : (
        camsShown(timing, question).map((cam) => (
          <CamFigures
            key={cam.camshaft}
            cam={cam}
            question={question}
            serial={engine.serial}
            entries={entries}
            voice={voice}
          />
        ))
      )}
      {!early && engine.judged_by && <p className={classes.soft}>Judged by {engine.judged_by}</p>}
      {(!question || question.kind === 'sign_off') && <HandOver serial={engine.serial} timing={timing} />}
      {timing.wheel && early && (
        <p className={classes.soft}>
          {timing.wheel.wheel_gauge} {timing.wheel.wheel_name} · {timing.wheel.dial_gauge} {timing.wheel.dial_name} ·
          lengths in {voice.unit}
        </p>
      )}
      {early && (
        <ul className={classes.cautions} aria-label="Cautions">
          {engine.cautions.map((caution) => (
            <li key={caution}>{caution}</li>
          ))}
        </ul>
      )}
    </div>
  );
}

/** Of several cams the one that is asked about; all of them when none is. */
function camsShown(timing: Schemas['TimingView'], question: Question | undefined) {
  const asked = timing.cams.filter((cam) => cam.camshaft === camAsked(question));
  return asked.length > 0 ? asked : timing.cams;
}

interface RowProps {
  label: string;
  aside?: ReactNode;
  children: ReactNode;
  big?: boolean;
}

function Row({ label, aside, children, big }: RowProps) {
  return (
    <div className={classes.row}>
      <span className={classes.label}>{label}</span>
      <span className={classes.aside}>{aside}</span>
      <div className={big ? classes.big : classes.figure}>{children}</div>
    </div>
  );
}

function TdcFigures({ timing }: { timing: Schemas['TimingView'] }) {
  const { tdc } = timing;
  if (!tdc)
    return (
      <>
        <Row label="Pointer error" big>
          –
        </Row>
        <p className={classes.soft}>
          {timing.wheel
            ? 'True TDC is worked out as soon as the readings allow it.'
            : 'Set up the wheel, then true TDC is looked for.'}
        </p>
      </>
    );
  const sign = tdc.zero_deg > 0 ? '+' : '';
  return (
    <>
      <Row label={tdc.adopted ? 'Pointer error' : 'Pointer error, so far'} aside={tdc.method_name} big>
        {sign}
        {tdc.zero_deg.toFixed(2)}°
      </Row>
      <Row label="To be trusted within" aside="95 times of 100">
        ±{tdc.expanded_deg.toFixed(2)}°
      </Row>
      <Row label="Readings" aside={tdc.readings > 2 ? `spread ${tdc.spread_deg.toFixed(2)}°` : ''}>
        {tdc.readings}
      </Row>
      <p className={classes.soft}>{tdc.adopted ? `Taken over: ${tdc.words}.` : `If taken over: ${tdc.words}.`}</p>
    </>
  );
}

/** Which valve the figures are about: the one asked for, else the first with something to show. */
function valveShown(cam: Schemas['CamFigures'], question: Question | undefined) {
  const asked =
    question?.kind === 'lift_reading' ? cam.valves.find((valve) => valve.valve === question.valve) : undefined;
  return asked ?? cam.valves.find((valve) => valve.verdict && valve.verdict !== 'in') ?? cam.valves[0];
}

interface CamProps {
  cam: Schemas['CamFigures'];
  question: Question | undefined;
  serial: string;
  entries: number;
  voice: Voice;
}

function CamFigures({ cam, question, serial, entries, voice }: CamProps) {
  const valve = valveShown(cam, question);
  if (!valve) return null;
  const name = valve.valve === 'intake' ? 'Intake' : 'Exhaust';
  const partial = valve.centreline_deg == null;
  // the question itself says how the cam stands
  const deciding = question?.kind === 'cam_decision' && cam.advance_words !== '';
  return (
    <>
      <Row label={`${name} centreline${valve.verdict ? '' : ', so far'}`} aside="mid of equal lifts" big>
        {partial ? '–' : sayDegrees(valve.centreline_deg ?? 0)} {valve.verdict && <Verdict verdict={valve.verdict} />}
      </Row>
      <CardRow valve={valve} u={deciding ? cam.expanded_deg : null} />
      {valve.top_centreline_deg != null && (
        <p className={classes.line}>
          <span>By full lift</span> {sayDegrees(valve.top_centreline_deg)} ± {valve.top_expanded_deg?.toFixed(1)}°
          {valve.card_top_centreline_deg != null && `, card ${sayDegrees(valve.card_top_centreline_deg)}`}
        </p>
      )}
      {valve.curve && <Curve curve={valve.curve} voice={voice} />}
      {deciding ? null : cam.advance_words ? (
        <Row label="The cam is" aside={cam.expanded_deg != null ? `U = ${cam.expanded_deg.toFixed(1)}°` : ''}>
          {cam.advance_words} {cam.verdict && cam.verdict !== valve.verdict && <Verdict verdict={cam.verdict} />}
        </Row>
      ) : (
        <EventLines valve={valve} />
      )}
      {cam.settles && <p className={classes.soft}>{cam.settles}</p>}
      {cam.gap && <p className={classes.soft}>Nearest: {say(cam.gap, voice)}.</p>}
      {cam.verdict && cam.verdict !== 'in' && cam.advance_deg != null && (
        <Suspense fallback={null}>
          <Causes serial={serial} entries={entries} rounds={cam.rounds} />
        </Suspense>
      )}
      {cam.advance_words && <Offers cam={cam} />}
      <Derived cam={cam} />
    </>
  );
}

function Curve({ curve, voice }: { curve: Schemas['LiftCurve']; voice: Voice }) {
  return (
    <p className={classes.line} data-off={curve.follows === false}>
      <span>By the whole curve, {curve.readings} readings</span>
      {curve.centreline_deg != null && `${sayDegrees(curve.centreline_deg)} ± ${curve.expanded_deg?.toFixed(1)}°`}
      {curve.centreline_deg != null && curve.card_deg != null && `, card ${sayDegrees(curve.card_deg)}`}
      <small>{say(curve.words, voice)}</small>
    </p>
  );
}

function CardRow({ valve, u }: { valve: Schemas['ValveFigures']; u: number | null }) {
  if (valve.card_centreline_deg == null)
    return (
      <Row label="Card" aside="">
        <small>none: no limit is known, it is kept as found</small>
      </Row>
    );
  return (
    <Row label="Card" aside={`${valve.side_words}${u == null ? '' : ` · U = ${u.toFixed(1)}°`}`}>
      {sayDegrees(valve.card_centreline_deg)}{' '}
      <small>{valve.tolerance_deg == null ? 'no limit known' : `± ${valve.tolerance_deg.toFixed(1)}`}</small>
    </Row>
  );
}

function EventLines({ valve }: { valve: Schemas['ValveFigures'] }) {
  return (
    <div className={classes.lines}>
      {[valve.opening, valve.closing].map((event, n) => (
        <p key={n === 0 ? 'opens' : 'closes'} className={classes.line}>
          <span>{n === 0 ? 'Opens' : 'Closes'}</span>
          {event.words || '–'}
          {event.card_words && <small> card {event.card_words}</small>}
        </p>
      ))}
    </div>
  );
}

function Offers({ cam }: { cam: Schemas['CamFigures'] }) {
  if (cam.offers.length === 0) return null;
  return (
    <div className={classes.lines}>
      <b>If you want it straight up</b>
      {cam.offers.map((offer) => (
        <p key={offer.value} className={classes.line}>
          <span>{offer.title}</span>
          leaves {offer.residual}
        </p>
      ))}
    </div>
  );
}

function Derived({ cam }: { cam: Schemas['CamFigures'] }) {
  if (cam.separation_cam_deg == null) return null;
  return (
    <div className={classes.lines}>
      <p className={classes.line}>
        <span>Lobe separation</span>
        {sayDegrees(cam.separation_cam_deg)} cam
        {cam.card_separation_cam_deg != null && <small> card {sayDegrees(cam.card_separation_cam_deg)}</small>}
      </p>
      {cam.overlap_deg != null && (
        <p className={classes.line}>
          <span>Overlap</span>
          {sayDegrees(cam.overlap_deg)}
        </p>
      )}
    </div>
  );
}

function HandOver({ serial, timing }: { serial: string; timing: Schemas['TimingView'] }) {
  const base = `/api/engines/${serial}`;
  const asFound = timing.cams.some((cam) => cam.valves.some((valve) => valve.verdict === 'no limit known'));
  return (
    <div className={classes.handOver}>
      <b>To hand over</b>
      <a href={`${base}/record.json`}>Record, JSON</a>
      <a href={`${base}/readings.csv`}>Readings, CSV</a>
      {asFound && <a href={`${base}/measured.json`}>Document with the measured card</a>}
    </div>
  );
}
