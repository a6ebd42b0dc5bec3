/** What an engine document says, part by part, as name and value; in its own words, nothing worked out. */
import type { Schemas } from '../api/client';

type Document = Schemas['EngineDocument'];
export type Fact = [name: string, value: string];

/** A figure, or that nobody knows it. */
function known(figure: number | null | undefined, unit = ''): string {
  return figure == null ? 'not known' : `${figure}${unit && ` ${unit}`}`;
}

/** The figures of some parts that are known, told apart; “not known” where none is. */
function listed(parts: [name: string, figure: number | null | undefined, unit: string][]): string {
  const told = parts.filter(([, figure]) => figure != null).map(([name, figure, unit]) => `${name}${figure} ${unit}`);
  return told.join(', ') || 'not known';
}

function limits(of: { least_mm?: number | null; most_mm?: number | null }): string {
  if (of.least_mm == null && of.most_mm == null) return 'no limit known';
  return `${known(of.least_mm)} to ${known(of.most_mm, 'mm')}`;
}

export function crankFacts(document: Document): Fact[] {
  const banks = document.banks.map(
    (bank): Fact => [
      document.banks.length > 1 ? `${bank.name}, cylinders ${bank.cylinders.join(', ')}` : 'Bore, stroke, rod',
      listed([
        ['bore ', bank.cranktrain.bore_mm, 'mm'],
        ['stroke ', bank.cranktrain.stroke_mm, 'mm'],
        ['rod ', bank.cranktrain.rod_mm, 'mm'],
      ]),
    ],
  );
  const offset = document.banks[0]?.cranktrain.pin_offset_mm ?? 0;
  const { sides } = document;
  const bankNamed = document.banks.find((bank) => bank.id === sides?.right_bank)?.name;
  return [
    ...banks,
    ['Pin offset', `${offset} mm`],
    ['Firing order', document.firing_order.join(' - ') || 'not known'],
    ['Runs', `${document.running_direction}, seen from the front`],
    ['Wheel is set to', `cylinder ${document.reference_cylinder}`],
    ...document.timing_positions.map((one): Fact => ['Timing position', one.name]),
    ...(bankNamed ? [['Called right', `${bankNamed}, seen from the ${sides?.seen_from}`] as Fact] : []),
    ...(sides?.intake ? [['Intake side', sides.intake] as Fact] : []),
  ];
}

export function driveFacts(document: Document): Fact[] {
  const couplings = document.drive.couplings.map(
    (one): Fact => [
      one.name,
      one.ways > 1 ? `goes together in ${one.ways} ways: ${one.told_by}` : 'goes together one way',
    ],
  );
  const stages = document.drive.stages.map((stage): Fact => {
    if (stage.kind === 'gears') return [stage.name, `gears, module ${known(stage.module_mm)}`];
    const what = stage.kind === 'chain' ? 'links' : 'teeth';
    const tensioner =
      stage.tensioner === 'none' ? ' · no tensioner' : stage.tensioner ? ` · ${stage.tensioner.name}` : '';
    return [
      stage.name,
      `${listed([
        ['', stage.count, what],
        ['pitch ', stage.pitch_mm, 'mm'],
      ])}${tensioner}`,
    ];
  });
  return [...stages, ...couplings];
}

/** What holds shafts, and what takes up slack: how each is fitted, armed and proven. */
export function holdingFacts(document: Document): Fact[] {
  const { drive, timing_positions: positions } = document;
  const named = (list: { id: string; name: string }[], id: string) => list.find((one) => one.id === id)?.name ?? id;
  const locks = drive.locks.map(
    (lock): Fact => [
      lock.name,
      `${lock.kind}, holds the ${named(drive.shafts, lock.holds)} at ${named(positions, lock.position)}`,
    ],
  );
  const tensioners = drive.stages.flatMap((stage): Fact[] => {
    if (stage.kind === 'gears' || !stage.tensioner || stage.tensioner === 'none') return [];
    const { name, kind, fit, arm, prove } = stage.tensioner;
    return [[name, [kind?.replaceAll('_', ' ') ?? 'kind not known', fit, arm, prove].filter(Boolean).join(' · ')]];
  });
  return [...locks, ...tensioners];
}

export function moveFacts(document: Document): Fact[] {
  return document.adjustments.map((one): Fact => [one.name, places(one)]);
}

/** Joints whose stages are in words; those in figures are drawn. */
export function jointFacts(document: Document): Fact[] {
  return document.joints.flatMap((one): Fact[] => {
    const words = one.stages.filter((stage) => typeof stage === 'string');
    if (words.length < one.stages.length) return [];
    const notes = [...words, one.lubrication, one.one_time ? 'new every time' : ''].filter(Boolean);
    const count =
      one.fasteners == null ? ', count not known' : `, ${one.fasteners}${one.thread ? ` × ${one.thread}` : ''}`;
    return [[`${one.name}${count}`, notes.join(' · ')]];
  });
}

export function limitFacts(document: Document): Fact[] {
  const fits = document.fits.map((one): Fact => [one.name, limits(one)]);
  const lash = document.lash.map((one): Fact => {
    const range = one.set_by === 'hydraulic' ? 'none, hydraulic' : `${limits(one)}, by ${one.set_by}`;
    return [`Lash, ${one.valve}, ${one.engine_is}`, range];
  });
  return [...fits, ...lash];
}

export function kitFacts(document: Document): Fact[] {
  return document.kit.map((one): Fact => {
    const how = [`${one.count}`, one.one_time && 'used once', one.returns && 'back to its place', one.lubricant];
    return [one.name, how.filter(Boolean).join(', ')];
  });
}

export function variantFacts(document: Document): Fact[] {
  const chosen = document.variants.flatMap((group) => group.options);
  return [...document.identity.variants, ...chosen].map((one): Fact => [one.name, one.told_by]);
}

export function thingFacts(document: Document): Fact[] {
  return document.things.map((one): Fact => {
    const how = [one.stops_turning && 'stops the crank', one.counter_hold && 'may be pulled against', one.made_of];
    return [one.name, how.filter(Boolean).join(', ') || 'comes off again'];
  });
}

/** The stages with their steps in the document's own words. */
export function runFacts(document: Document): Fact[] {
  return document.stages.map((stage): Fact => {
    const steps = stage.steps.map((step) => (typeof step === 'string' ? step : step.says));
    return [stage.title, steps.map((says) => says.replace(/\.$/, '')).join(' · ')];
  });
}

/** The places an adjustment has, as its document says them. */
function places(adjustment: Document['adjustments'][number]): string {
  switch (adjustment.kind) {
    case 'key_slots':
      return adjustment.slots.map((slot) => slot.name).join(', ');
    case 'offset_bushes':
      return adjustment.bushes.map((bush) => bush.name).join(', ');
    case 'hole_circles':
      return `${adjustment.cam_holes} and ${adjustment.sprocket_holes} holes`;
    case 'slotted_sprocket':
      return `± ${adjustment.range_deg}°, any place`;
    case 'sprocket_teeth':
      return `${adjustment.teeth} teeth`;
  }
}
