import {
  counted,
  drillingHoles,
  formatQuantity,
  mostFrontM,
  type ObstacleKind,
  type Place,
} from '@bastion/core';
import { Printer, Trash2 } from 'lucide-react';
import { useState } from 'react';
import { useJob, useOpenJob } from '../../state/job.ts';
import { put } from '../../state/put.ts';
import { NumberField, SelectField, TextField } from '../../ui/fields.tsx';
import { addBox, addObstacle, mountPart, placeIn, removeFromWall, thingIn, unplaced } from './wallEdits.ts';

const SURFACES = [
  { value: 'fire-resistant', label: 'Fire-resistant' },
  { value: 'combustible', label: 'Combustible' },
] as const;
const EXPOSURES = [
  { value: 'indoors', label: 'Indoors' },
  { value: 'sheltered', label: 'Outdoors, sheltered' },
  { value: 'outdoors', label: 'Outdoors, open' },
] as const;
const OBSTACLE_WORDS: Record<ObstacleKind, string> = {
  window: 'Window',
  door: 'Door',
  'gas-meter': 'Gas meter',
  combustible: 'Combustible surface',
  'heat-source': 'Heat source',
  sunlit: 'Sunlit part',
  wet: 'Wet part',
  pipe: 'Pipe',
  other: 'Something else',
};
const OBSTACLES = Object.keys(OBSTACLE_WORDS).filter((kind): kind is ObstacleKind => kind in OBSTACLE_WORDS);

type Wall = NonNullable<Place['wall']>;

/** How much room the things on the wall want in front of it. */
function FrontWanted() {
  const { analysis } = useOpenJob();
  const { mostM, isWhole } = mostFrontM(analysis.installation.wall);
  return mostM === undefined ? (
    <span />
  ) : (
    <p className="self-end text-[13px] text-quiet">
      {isWhole ? '' : 'At least '}
      {formatQuantity(mostM, 'm')} wanted: the deepest thing, and the room to work before it
      {isWhole ? '' : '; not every type is known'}
    </p>
  );
}

/** What is asked of the wall itself. */
export function WallForm() {
  const { design, canEdit } = useOpenJob();
  const change = useJob((store) => store.change);
  const wall = design.place?.wall;
  const set = <K extends keyof Wall>(label: string, key: K, value: Wall[K] | undefined) =>
    change(label, (draft) => {
      const place = placeIn(draft);
      place.wall ??= {};
      put(place.wall, key, value);
    });
  const number = (
    key: 'widthM' | 'heightM' | 'loadLimitKg' | 'fixingLimitKg' | 'frontFreeM',
    label: string,
    unit: string,
  ) => (
    <NumberField
      label={label}
      unit={unit}
      path={['place', 'wall', key]}
      value={wall?.[key]}
      disabled={!canEdit}
      onTake={(value) => set(label, key, value)}
    />
  );
  return (
    <fieldset className="sheet grid grid-cols-2 gap-x-3 gap-y-1 p-3">
      <legend className="px-1 font-semibold">Wall</legend>
      {number('widthM', 'Width', 'm')}
      {number('heightM', 'Height', 'm')}
      <SelectField
        label="Surface"
        path={['place', 'wall', 'surface']}
        value={wall?.surface}
        options={SURFACES}
        disabled={!canEdit}
        onTake={(value) => void set('Surface', 'surface', value)}
      />
      <SelectField
        label="Exposure"
        path={['place', 'wall', 'exposure']}
        value={wall?.exposure}
        options={EXPOSURES}
        disabled={!canEdit}
        onTake={(value) => void set('Exposure', 'exposure', value)}
      />
      {number('loadLimitKg', 'May carry in all', 'kg')}
      {number('fixingLimitKg', 'One fixing carries', 'kg')}
      {number('frontFreeM', 'Free in front of it', 'm')}
      <FrontWanted />
      <div className="col-span-2">
        <TextField
          label="Datum: where x = 0 and y = 0 are"
          path={['place', 'datum']}
          value={design.place?.datum ?? ''}
          disabled={!canEdit}
          onTake={(value) =>
            change('Datum', (draft) => put(placeIn(draft), 'datum', value === '' ? undefined : value))
          }
        />
      </div>
    </fieldset>
  );
}

/** The thing in hand: its place and size as figures. */
export function ThingForm({ id, onGone }: { readonly id: string; readonly onGone: () => void }) {
  const { design, analysis, canEdit } = useOpenJob();
  const change = useJob((store) => store.change);
  const { place } = design;
  const mounted = place?.mounted.find((one) => one.id === id);
  const obstacle = place?.obstacles.find((one) => one.id === id);
  const thing = mounted ?? obstacle;
  if (thing === undefined) return null;
  const list = mounted === undefined ? 'obstacles' : 'mounted';
  const path = ['place', list, id];
  const label =
    analysis.installation.wall.find((one) => one.mounted.id === id)?.label ??
    obstacle?.name ??
    (obstacle === undefined ? id : OBSTACLE_WORDS[obstacle.kind]);
  const number = (key: 'xM' | 'yM' | 'widthM' | 'heightM', words: string) => (
    <NumberField
      label={words}
      unit="m"
      path={[...path, key]}
      value={thing[key]}
      disabled={!canEdit}
      onTake={(value) =>
        value === undefined && key !== 'widthM' && key !== 'heightM'
          ? [{ path, message: 'a figure is needed' }]
          : change(words, (draft) => {
              const target = thingIn(placeIn(draft), id);
              if (target !== undefined && value !== undefined) target[key] = value;
            })
      }
    />
  );
  const hasSize = obstacle !== undefined || mounted?.part === 'box';
  return (
    <fieldset className="sheet grid grid-cols-2 gap-x-3 gap-y-1 p-3">
      <legend className="px-1 font-semibold">{label}</legend>
      {number('xM', 'Left edge')}
      {number('yM', 'Lower edge')}
      {hasSize && number('widthM', 'Width')}
      {hasSize && number('heightM', 'Height')}
      {hasSize && (
        <div className="col-span-2">
          <TextField
            label="Name"
            path={[...path, 'name']}
            value={thing.name ?? ''}
            disabled={!canEdit}
            onTake={(value) =>
              change('Name', (draft) => {
                const target = thingIn(placeIn(draft), id);
                if (target !== undefined) put(target, 'name', value === '' ? undefined : value);
              })
            }
          />
        </div>
      )}
      {mounted !== undefined && (
        <NumberField
          label={mounted.part === 'box' ? 'Mass' : 'Mass, where it differs'}
          unit="kg"
          path={[...path, 'massKg']}
          value={mounted.massKg}
          disabled={!canEdit}
          onTake={(value) =>
            change('Mass', (draft) => {
              const target = placeIn(draft).mounted.find((one) => one.id === id);
              if (target !== undefined) put(target, 'massKg', value);
            })
          }
        />
      )}
      {mounted !== undefined && mounted.part !== 'box' && (
        <NumberField
          label="Leans, from the vertical"
          unit="°"
          path={[...path, 'tiltDeg']}
          value={mounted.tiltDeg}
          disabled={!canEdit}
          onTake={(value) =>
            change('Tilt', (draft) => {
              const target = placeIn(draft).mounted.find((one) => one.id === id);
              if (target !== undefined) put(target, 'tiltDeg', value);
            })
          }
        />
      )}
      {canEdit && (
        <button
          type="button"
          className="button col-span-2 justify-center"
          onClick={() => {
            change(`Take ${label} off the wall`, (draft) => removeFromWall(draft, id));
            onGone();
          }}
        >
          <Trash2 size={14} aria-hidden="true" /> Take it off the wall
        </button>
      )}
    </fieldset>
  );
}

/** What is still to be put on the wall. */
export function AddToWall({ onAdded }: { readonly onAdded: () => void }) {
  const { design, analysis, canEdit } = useOpenJob();
  const change = useJob((store) => store.change);
  const [kind, setKind] = useState<ObstacleKind>('window');
  if (!canEdit) return null;
  const waiting = unplaced(design);
  const all = (): void => {
    // One by one, so that each finds its place beside the one before it.
    waiting.forEach((part) =>
      change(`Put ${part.label} on the wall`, (draft) => mountPart(draft, part, analysis.installation.wall)),
    );
    onAdded();
  };
  return (
    <fieldset className="sheet grid gap-2 p-3">
      <legend className="px-1 font-semibold">Put on the wall</legend>
      {waiting.length > 0 ? (
        <>
          <p className="text-unknown">{counted(waiting.length, 'part')} of the stack not on the wall yet.</p>
          <div className="flex flex-wrap gap-1.5">
            {waiting.slice(0, 10).map((part) => (
              <button
                key={`${part.stackId}/${part.partId}`}
                type="button"
                className="button"
                onClick={() => {
                  change(`Put ${part.label} on the wall`, (draft) =>
                    mountPart(draft, part, analysis.installation.wall),
                  );
                  onAdded();
                }}
              >
                {part.label}
              </button>
            ))}
            {waiting.length > 1 && (
              <button type="button" className="button" onClick={all}>
                All of them
              </button>
            )}
          </div>
        </>
      ) : (
        <p className="text-quiet">All units and modules of the design are on the wall.</p>
      )}
      <div className="flex flex-wrap gap-1.5">
        <button
          type="button"
          className="button"
          onClick={() => change('Put a board or box on the wall', addBox)}
        >
          Board or box
        </button>
        <select
          className="input w-auto!"
          aria-label="Kind of obstacle"
          value={kind}
          onChange={(event) => setKind(OBSTACLES.find((one) => one === event.target.value) ?? kind)}
        >
          {OBSTACLES.map((one) => (
            <option key={one} value={one}>
              {OBSTACLE_WORDS[one]}
            </option>
          ))}
        </select>
        <button
          type="button"
          className="button"
          onClick={() => change(`Draw in: ${OBSTACLE_WORDS[kind]}`, (draft) => addObstacle(draft, kind))}
        >
          Draw in
        </button>
      </div>
    </fieldset>
  );
}

/** Drilling marks from the datum, and the way to print them at 1:1. */
export function HolesTable() {
  const { id, analysis } = useOpenJob();
  const holes = drillingHoles(analysis.installation.wall);
  return (
    <section className="sheet p-3" aria-label="Drilling marks">
      <div className="flex items-center gap-2">
        <h3 className="flex-1 font-semibold">Drilling marks: {counted(holes.length, 'hole')}</h3>
        <a className="button" href={`/api/jobs/${id}/drilling.pdf`}>
          <Printer size={15} aria-hidden="true" /> 1:1 on A4, PDF
        </a>
      </div>
      <p className="mt-1 text-quiet">
        Look for pipes and cables in the wall first. Print at 100 % and measure the bar on each sheet.
      </p>
      <div className="mt-1 max-h-64 overflow-y-auto" tabIndex={0}>
        <table className="condensed w-full text-right">
          <thead>
            <tr className="text-quiet">
              <th className="text-left font-medium">Of</th>
              <th className="font-medium">x, mm</th>
              <th className="font-medium">y, mm</th>
              <th className="font-medium">ø, mm</th>
            </tr>
          </thead>
          <tbody>
            {holes.map((hole, index) => (
              <tr key={index} className="border-t border-rule">
                <td className="text-left">{hole.label}</td>
                <td>{Math.round(hole.xM * 1000)}</td>
                <td>{Math.round(hole.yM * 1000)}</td>
                <td>{hole.diameterMm}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </section>
  );
}
