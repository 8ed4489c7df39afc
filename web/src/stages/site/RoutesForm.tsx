import { describePlaces, formatQuantity, type Place } from '@bastion/core';
import { Trash2 } from 'lucide-react';
import { useState } from 'react';
import { newId, useJob, useOpenJob } from '../../state/job.ts';
import { put } from '../../state/put.ts';
import { TextField } from '../../ui/fields.tsx';
import { placeIn, removeFromWall } from './wallEdits.ts';

/** Routes along the wall between two things, with the length that a conductor on them is cut to. */
export function RoutesForm() {
  const { design, analysis, canEdit } = useOpenJob();
  const change = useJob((store) => store.change);
  const { wall, routes } = analysis.installation;
  const [fromId, setFrom] = useState('');
  const [toId, setTo] = useState('');
  const routeIn = (place: Place, id: string) => place.routes.find((one) => one.id === id);
  const end = (label: string, value: string, onPick: (id: string) => void) => (
    <select
      className="input"
      aria-label={label}
      value={value}
      onChange={(event) => onPick(event.target.value)}
    >
      <option value="">{label}</option>
      {wall.map(({ mounted, label: words }) => (
        <option key={mounted.id} value={mounted.id}>
          {words}
        </option>
      ))}
    </select>
  );
  const pointsText = (points: readonly { xM: number; yM: number }[]): string =>
    points.map(({ xM, yM }) => `${xM} ${yM}`).join('; ');
  const readPoints = (text: string): { xM: number; yM: number }[] | undefined => {
    const points = text
      .split(';')
      .filter((part) => part.trim() !== '')
      .map((part) =>
        part
          .trim()
          .split(/\s+/)
          .map((one) => Number(one.replace(',', '.'))),
      );
    return points.every(([xM, yM, more]) => Number.isFinite(xM) && Number.isFinite(yM) && more === undefined)
      ? points.map(([xM = 0, yM = 0]) => ({ xM, yM }))
      : undefined;
  };
  return (
    <fieldset className="sheet grid gap-2 p-3">
      <legend className="px-1 font-semibold">Routes</legend>
      {routes.map(({ route, label, alongM, cutM }) => (
        <div key={route.id} className="grid gap-1 border-t border-rule pt-1">
          <div className="flex items-center gap-2">
            <span className="flex-1 font-semibold">{label}</span>
            <span className="text-right whitespace-nowrap">
              {cutM.known ? (
                <>
                  cut to <strong>{formatQuantity(cutM.value, 'm')}</strong>
                </>
              ) : (
                <span className="text-unknown" title={describePlaces(design, cutM.missing)}>
                  not known
                </span>
              )}
              {alongM.known && (
                <span className="text-quiet"> ({formatQuantity(alongM.value, 'm')} along)</span>
              )}
            </span>
            {canEdit && (
              <button
                type="button"
                className="button button-quiet"
                aria-label={`Remove the route ${label}`}
                onClick={() => change(`Remove ${label}`, (draft) => removeFromWall(draft, route.id))}
              >
                <Trash2 size={14} aria-hidden="true" />
              </button>
            )}
          </div>
          <div className="grid grid-cols-2 gap-2">
            <TextField
              label="By the points (x y; x y)"
              path={['place', 'routes', route.id, 'points']}
              value={pointsText(route.points)}
              disabled={!canEdit}
              onTake={(text) => {
                const points = readPoints(text);
                if (points === undefined)
                  return [{ path: [], message: 'write x and y in metres, points parted by ";"' }];
                return change('Points of the route', (draft) => {
                  const target = routeIn(placeIn(draft), route.id);
                  if (target !== undefined) target.points = points;
                });
              }}
            />
            <TextField
              label="Equal-length set"
              path={['place', 'routes', route.id, 'equalSet']}
              value={route.equalSet ?? ''}
              disabled={!canEdit}
              onTake={(text) =>
                change('Equal-length set', (draft) => {
                  const target = routeIn(placeIn(draft), route.id);
                  if (target !== undefined) put(target, 'equalSet', text === '' ? undefined : text);
                })
              }
            />
          </div>
        </div>
      ))}
      {canEdit && (
        <div className="grid grid-cols-[1fr_1fr_auto] gap-2">
          {end('From', fromId, setFrom)}
          {end('To', toId, setTo)}
          <button
            type="button"
            className="button"
            disabled={fromId === '' || toId === '' || fromId === toId}
            onClick={() =>
              change(
                'Add a route',
                (draft) => void placeIn(draft).routes.push({ id: newId('r'), fromId, toId, points: [] }),
              )
            }
          >
            Add
          </button>
        </div>
      )}
    </fieldset>
  );
}
