import { type Plant, plantKey, type Transfer } from '@bastion/core';
import { useMemo } from 'react';
import { useOpenJob } from '../../../state/job.ts';
import { useKeptNights } from '../keptNights.ts';
import type { Played } from '../playOutage.ts';
import { frequencyLane, type Lane, lanesOf, nightsLane } from './lanes.ts';
import { type Mark, RulerView } from './RulerView.tsx';
import type { Ruler } from './useRuler.ts';

/** What an outage of hours is read by first. */
const OF_HOURS = ['soc', 'boards', 'power', 'sources', 'current', 'nights'];

const hoursFirst = (lanes: readonly Lane[]): readonly Lane[] => [
  ...OF_HOURS.flatMap((key) => lanes.filter((lane) => lane.key === key)),
  ...lanes.filter(({ key }) => !OF_HOURS.includes(key)),
];

/** The ruler of one set: its first seconds, the minutes of an outage, and how long many nights last. */
export function SetRuler({
  ruler,
  wholeS,
  plant,
  transfer,
  played,
  kept,
  frequencyHz,
  isOfSeconds,
}: {
  readonly ruler: Ruler;
  readonly wholeS: number;
  readonly plant: Plant;
  readonly transfer: Transfer | undefined;
  readonly played: Played;
  readonly kept: Played | undefined;
  readonly frequencyHz: number | undefined;
  /** Whether the first seconds are looked at, and not the hours. */
  readonly isOfSeconds: boolean;
}) {
  const { id } = useOpenJob();
  const keptNights = useKeptNights((store) => store.kept.get(`${id} ${plant.stackId}`));
  const figures = useMemo(() => plantKey(plant), [plant]);
  // Nights of other figures than these say nothing here.
  const nights = keptNights?.plantKey === figures ? keptNights : undefined;
  const lanes = useMemo(
    () => [
      ...lanesOf(plant, transfer, played, kept),
      ...(frequencyHz === undefined ? [] : [frequencyLane(plant, transfer, played, frequencyHz)]),
      ...(nights === undefined ? [] : [nightsLane(nights.summary)]),
    ],
    [plant, transfer, played, kept, nights, frequencyHz],
  );
  const marks = useMemo(
    (): readonly Mark[] =>
      [
        ...(transfer?.events ?? []),
        ...played.events.map(({ minute, sentence, isBad }) => ({ atS: minute * 60, sentence, isBad })),
      ].sort((a, b) => a.atS - b.atS),
    [transfer, played],
  );
  const isTripped = transfer?.lines.some(({ tripsAtS }) => tripsAtS !== undefined) === true;
  return (
    <RulerView
      ruler={ruler}
      wholeS={wholeS}
      lanes={isOfSeconds ? lanes : hoursFirst(lanes)}
      marks={marks}
      note={
        isTripped
          ? 'The set trips in the first seconds: what comes after holds only once somebody has taken load off and reset it.'
          : undefined
      }
    />
  );
}
