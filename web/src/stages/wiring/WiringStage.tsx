import {
  type Analysis,
  describePlace,
  drawDiagram,
  type MatrixCell,
  modeMatrix,
  modesOf,
  type Network,
  nudged,
  type Part,
} from '@bastion/core';
import { memo, useCallback, useMemo, useState } from 'react';
import { useJob, useOpenJob } from '../../state/job.ts';
import { useLight } from '../../state/light.ts';
import { useStaged } from '../../ui/useStaged.ts';
import { useAfterPaint } from '../../ui/useAfterPaint.ts';
import { BROKEN_WORDS } from '../../workers/broken.ts';
import { BondMends } from './BondMends.tsx';
import { CircuitTable } from './CircuitTable.tsx';
import { FaultTable } from './FaultTable.tsx';
import { EarthingForm } from './EarthingForm.tsx';
import { ExportButtons } from './ExportButtons.tsx';
import { BuildingNetwork } from './BuildingNetwork.tsx';
import { InstrumentsPanel } from './InstrumentsPanel.tsx';
import { LineDevices } from './LineDevices.tsx';
import { ModeMatrix } from './ModeMatrix.tsx';
import { findingsOfPart, PartPanel } from './PartPanel.tsx';
import { SchedulePanel } from './schedules/SchedulePanel.tsx';
import { SingleLineView } from './SingleLineView.tsx';
import { type SingleLine, useSingleLine } from './useSingleLine.ts';

interface Picked {
  readonly nodeId?: string;
  readonly cell?: { readonly key: string; readonly path: readonly string[] };
}

/** The generated single line with the mode matrix above it and the schedules below. */
const Wired = memo(function Wired({
  line,
  installation,
  findings,
}: { readonly line: SingleLine } & Pick<Analysis, 'installation' | 'findings'>) {
  const { design } = useOpenJob();
  const modeId = useJob((store) => store.modeId);
  const chooseMode = useJob((store) => store.chooseMode);
  const { litPart, lightPart } = useLight();
  const [picked, setPicked] = useState<Picked>({});
  const { network, diagram } = line;
  const nudges = installation.wiring?.nudges;
  const layout = useMemo(
    () => line.layout && nudged(line.layout, diagram, nudges),
    [line.layout, diagram, nudges],
  );
  const mode = modesOf(installation).find((one) => one.id === modeId);
  const matrix = useMemo(() => modeMatrix(installation), [installation]);
  const node = diagram.nodes.find(({ id }) => id === picked.nodeId);
  const partIds = useMemo(() => new Set(node?.partIds ?? []), [node]);
  const parts: Part[] = network.parts.filter(({ id }) => partIds.has(id));
  const drawing = useMemo(() => {
    if (layout === undefined || mode === undefined) return undefined;
    const here = findings.filter(
      (finding) => finding.mode === mode.id || finding.mode === modesOf(installation)[0]?.id,
    );
    return drawDiagram(installation, network, diagram, layout, {
      mode,
      path: picked.cell?.path ?? [],
      stateOf: (partId) => {
        const states = findingsOfPart(here, new Set([partId])).map(({ state }) => state);
        return states.includes('over') ? 'over' : states.includes('unknown') ? 'unknown' : undefined;
      },
    });
  }, [installation, network, diagram, layout, mode, findings, picked.cell]);
  const nodeOf = (partId: string): string | undefined =>
    diagram.nodes.find((one) => one.partIds.includes(partId))?.id;
  const inkPath = useCallback(
    (ids: readonly string[]): void => {
      if (ids.some((id) => diagram.nodes.some((one) => one.partIds.includes(id))))
        setPicked({ cell: { key: '', path: [...ids] } });
    },
    [diagram],
  );
  const pick = (nodeId: string | undefined): void =>
    setPicked(nodeId === undefined || nodeId === picked.nodeId ? {} : { nodeId });
  const pickCell = (rowMode: string, column: string, { path }: MatrixCell): void => {
    const key = `${rowMode} ${column}`;
    chooseMode(rowMode);
    setPicked(picked.cell?.key === key ? {} : { cell: { key, path } });
  };
  return (
    <div className="grid grid-cols-[minmax(0,1fr)] gap-4">
      <div className="grid grid-cols-[minmax(0,1fr)] items-start gap-4 xl:grid-cols-[minmax(0,1fr)_360px]">
        {matrix.known && (
          <ModeMatrix rows={matrix.value} modeId={modeId} chosen={picked.cell?.key} onPick={pickCell} />
        )}
        <PartPanel parts={parts} network={network} nodeId={picked.nodeId} />
      </div>
      <BondMends />
      {network.problems.map(({ path, message }) => (
        <p key={path.join('/')} className="sheet px-3 py-1.5 text-over">
          <span className="inline-block first-letter:uppercase">{describePlace(design, path)}</span> {message}
          .
        </p>
      ))}
      {line.failed && <p className="sheet p-3 text-over">{BROKEN_WORDS}</p>}
      {drawing === undefined || layout === undefined || mode === undefined ? (
        !line.failed && <p className="sheet p-4 text-quiet">Laying the single line out…</p>
      ) : (
        <>
          <SingleLineView
            diagram={diagram}
            layout={layout}
            drawing={drawing}
            title={`Single line, ${mode.label}`}
            chosen={picked.nodeId}
            lit={litPart === undefined ? undefined : nodeOf(litPart)}
            onPick={pick}
            onLight={(nodeId) => lightPart(diagram.nodes.find(({ id }) => id === nodeId)?.partIds[0])}
          />
          <ExportButtons drawing={drawing} modeId={mode.id} modeLabel={mode.label} />
        </>
      )}
      <SchedulePanel chosen={partIds} onPick={inkPath} />
      <Below network={network} parts={parts} partIds={partIds} onPick={(partId) => pick(nodeOf(partId))} />
    </div>
  );
});

interface BelowProps {
  readonly network: Network;
  readonly parts: readonly Part[];
  readonly partIds: ReadonlySet<string>;
  readonly onPick: (partId: string) => void;
}

/** The tables below the drawing and its schedules: they follow the first picture, one after the other. */
function Below({ network, parts, partIds, onPick }: BelowProps) {
  const shown = useStaged(4);
  const boards = useMemo(
    () => new Set(parts.flatMap(({ partitionId }) => (partitionId === undefined ? [] : [partitionId]))),
    [parts],
  );
  return (
    <div className="grid grid-cols-[minmax(0,1fr)] items-start gap-4 xl:grid-cols-[minmax(0,1fr)_400px]">
      <div className="grid grid-cols-[minmax(0,1fr)] gap-4">
        {shown > 0 && (
          <section className="sheet p-3">
            <h3 className="font-semibold">Devices in the lines</h3>
            <LineDevices network={network} chosen={partIds} onPick={onPick} />
          </section>
        )}
        {shown > 1 && (
          <section className="below sheet p-3">
            <h3 className="font-semibold">Circuits</h3>
            <CircuitTable partitionIds={boards} />
          </section>
        )}
        {shown > 2 && (
          <section className="below sheet p-3">
            <h3 className="font-semibold">Fault protection without the grid</h3>
            <FaultTable />
          </section>
        )}
      </div>
      {shown > 3 && (
        <div className="grid grid-cols-1 gap-4">
          <EarthingForm />
          <InstrumentsPanel />
          <BuildingNetwork />
        </div>
      )}
    </div>
  );
}

/** What follows from the design as one network: walked in every mode, drawn as a single line. */
export function WiringStage() {
  const { design, analysis: now } = useOpenJob();
  // A field that is typed into is answered before the drawing and the matrix follow it.
  const analysis = useAfterPaint(now);
  const line = useSingleLine(analysis);
  if (line === undefined || (design.stacks.length === 0 && design.generators.length === 0)) {
    return (
      <div className="sheet max-w-xl p-6">
        <h2>Nothing to wire yet</h2>
        <p className="mt-2">
          The single line is drawn from the design: choose the supply in Site and add inverters in Stack, and
          it appears here by itself.
        </p>
      </div>
    );
  }
  return (
    <>
      <h2 className="sr-only">Wiring</h2>
      <Wired line={line} installation={analysis.installation} findings={analysis.findings} />
    </>
  );
}
