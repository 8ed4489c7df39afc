import { conductorColour, drawPort, landingId, type PortEnd, type ScheduleRow } from '@bastion/core';
import { useOpenJob } from '../../../state/job.ts';
import { ShapeView } from '../../../ui/ShapeView.tsx';

const wordsOf = (cell: unknown): string | undefined =>
  typeof cell === 'string' && cell !== '' ? cell : undefined;
const figureOf = (cell: unknown): number | undefined => (typeof cell === 'number' ? cell : undefined);

/** The port that one stands before: terminals side by side, each with its conductor and the end made onto it. */
export function PortDrawing({
  title,
  rows,
}: {
  readonly title: string;
  readonly rows: readonly ScheduleRow[];
}) {
  const { design } = useOpenJob();
  const ends = rows.map((row): PortEnd => {
    const terminal = wordsOf(row.cells.terminal) ?? '';
    const tick = design.delivery.find(({ id }) => id === landingId(row.id));
    return {
      terminal,
      size: wordsOf(row.cells.size),
      colour: conductorColour(design.site.codeProfile, terminal),
      end: wordsOf(row.cells.end),
      stripMm: figureOf(row.cells.strip),
      isDone: tick?.state === 'ready',
      isWrong: row.state === 'over',
      order: figureOf(row.cells.order),
    };
  });
  const drawing = drawPort(ends);
  return (
    <figure className="m-0 my-2">
      <svg
        className="block max-w-full"
        width={drawing.widthPx}
        viewBox={`0 0 ${drawing.widthPx} ${drawing.heightPx}`}
        role="img"
        aria-label={`${title}: ${ends.map(({ terminal, size }) => `${terminal} ${size ?? 'size not known'}`).join(', ')}`}
      >
        {drawing.shapes.map((shape, at) => (
          <ShapeView key={at} shape={shape} />
        ))}
      </svg>
      <figcaption className="text-[12.5px] text-quiet">
        Strip length in mm beside each end. A filled screw is landed; red does not fit.
      </figcaption>
    </figure>
  );
}
