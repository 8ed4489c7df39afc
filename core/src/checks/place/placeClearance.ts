import { type Clearance, obstacleLabel, type Rect, rightOf, topOf } from '../../installation/place/wall.ts';
import { type Check, checkOf } from '../check.ts';
import { eachOnWall, wallSubject } from '../support/wall.ts';

interface Gap {
  readonly side: string;
  readonly gapM: number;
  readonly neededM: number;
  readonly other: string;
  /** The thing on the wall that it is, where it is one. */
  readonly otherId?: string;
}

/** Gaps from one rectangle to another on each side on which they face each other. Overlaps give a negative gap on the nearest side. */
function gapsTo(rect: Rect, other: Rect, label: string, need: Clearance): Gap[] {
  const sideBySide = Math.min(topOf(rect), topOf(other)) > Math.max(rect.yM, other.yM);
  const overEachOther = Math.min(rightOf(rect), rightOf(other)) > Math.max(rect.xM, other.xM);
  const gaps: Gap[] = [];
  if (sideBySide) {
    const right = other.xM - rightOf(rect);
    const left = rect.xM - rightOf(other);
    gaps.push(
      right >= left
        ? { side: 'right', gapM: right, neededM: need.sidesM, other: label }
        : { side: 'left', gapM: left, neededM: need.sidesM, other: label },
    );
  }
  if (overEachOther) {
    const above = other.yM - topOf(rect);
    const below = rect.yM - topOf(other);
    gaps.push(
      above >= below
        ? { side: 'above', gapM: above, neededM: need.aboveM, other: label }
        : { side: 'below', gapM: below, neededM: need.belowM, other: label },
    );
  }
  // Where bodies overlap both ways, the side on which they reach less far into each other is the one to mend.
  if (gaps.length === 2) return [gaps.reduce((a, b) => (b.gapM > a.gapM ? b : a))];
  return gaps;
}

/** Gaps to the floor, the ceiling and the ends of the wall. */
function gapsToEdges(
  rect: Rect,
  need: Clearance,
  wall: { widthM?: number | undefined; heightM?: number | undefined },
): Gap[] {
  return [
    { side: 'below', gapM: rect.yM, neededM: need.belowM, other: 'the floor' },
    { side: 'left', gapM: rect.xM, neededM: need.sidesM, other: 'the end of the wall' },
    ...(wall.widthM === undefined
      ? []
      : [
          {
            side: 'right',
            gapM: wall.widthM - rightOf(rect),
            neededM: need.sidesM,
            other: 'the end of the wall',
          },
        ]),
    ...(wall.heightM === undefined
      ? []
      : [{ side: 'above', gapM: wall.heightM - topOf(rect), neededM: need.aboveM, other: 'the ceiling' }]),
  ];
}

/** Free space around each thing against what its type asks for; the side with the least to spare is reported. */
export const placeClearance: Check<'place.clearance'> = checkOf({
  id: 'place.clearance',
  title: 'Clearance',
  family: 'place',
  modes: 'once',
  sentences: {
    over: '{{subject}}: {{value}} to {{other}} ({{side}}), and its type asks for {{limit}}.',
    tight: '{{subject}}: {{value}} to {{other}} ({{side}}); its type asks for {{limit}}.',
    within: '{{subject}}: {{value}} to {{other}} ({{side}}); its type asks for {{limit}}.',
    unknown: '{{subject}}: its clearances cannot be judged yet. Missing: {{missing}}.',
  },
  run: (context) =>
    eachOnWall(placeClearance.id, context, (one, wall) => {
      if (one.body === undefined) return undefined;
      const { place } = context.installation;
      const missing = [
        ...(one.clearance.known ? [] : one.clearance.missing),
        ...wall.flatMap((other) => (other.rect.known ? [] : other.rect.missing)),
      ];
      // The size of the wall is asked for where nothing else stands beside the thing to be judged by.
      const edges = [
        ...(place?.wall?.widthM === undefined ? [['place', 'wall', 'widthM']] : []),
        ...(place?.wall?.heightM === undefined ? [['place', 'wall', 'heightM']] : []),
      ];
      const { rect, clearance } = one;
      const gaps =
        rect.known && clearance.known
          ? [
              ...gapsToEdges(rect.value, clearance.value, place?.wall ?? {}),
              ...wall.flatMap((other) =>
                other === one || !other.rect.known
                  ? []
                  : gapsTo(rect.value, other.rect.value, other.label, {
                      sidesM: Math.max(
                        clearance.value.sidesM,
                        other.clearance.known ? other.clearance.value.sidesM : 0,
                      ),
                      aboveM: Math.max(
                        clearance.value.aboveM,
                        other.clearance.known ? other.clearance.value.belowM : 0,
                      ),
                      belowM: Math.max(
                        clearance.value.belowM,
                        other.clearance.known ? other.clearance.value.aboveM : 0,
                      ),
                    }).map((gap): Gap => ({ ...gap, otherId: other.mounted.id })),
              ),
              ...(place?.obstacles ?? []).flatMap((obstacle) =>
                obstacle.kind === 'sunlit' || obstacle.kind === 'combustible'
                  ? []
                  : gapsTo(rect.value, obstacle, obstacleLabel(obstacle), clearance.value),
              ),
            ]
          : [];
      const worst = gaps.reduce<Gap | undefined>(
        (least, gap) =>
          least === undefined || gap.gapM - gap.neededM < least.gapM - least.neededM ? gap : least,
        undefined,
      );
      return {
        subject: {
          ...wallSubject(one),
          ...(worst?.otherId === undefined ? {} : { about: [{ kind: 'place' as const, id: worst.otherId }] }),
        },
        value: worst?.gapM,
        limit: worst?.neededM,
        unit: 'm',
        bound: 'at-least',
        graded: false,
        missing:
          worst !== undefined && worst.gapM < worst.neededM
            ? []
            : [...missing, ...(gaps.some(({ otherId }) => otherId !== undefined) ? [] : edges)],
        data: { side: worst?.side ?? '', other: worst?.other ?? '' },
        working: () => ({
          steps: [],
          inputs: [
            { label: `${one.label}: left edge`, path: [...one.path, 'xM'], value: one.mounted.xM, unit: 'm' },
            {
              label: `${one.label}: lower edge`,
              path: [...one.path, 'yM'],
              value: one.mounted.yM,
              unit: 'm',
            },
          ],
          source:
            'Gap on each side to what faces it; between two things the larger of both clearances counts.',
          notes: gaps.map(
            (gap) => `${gap.side}, to ${gap.other}: ${gap.gapM.toFixed(3)} m of ${gap.neededM.toFixed(3)} m.`,
          ),
        }),
      };
    }),
});
