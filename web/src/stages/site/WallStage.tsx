import { checkById, compareFindings, sentenceOf, subjectKey } from '@bastion/core';
import { useMemo, useState } from 'react';
import { useDrawer } from '../../state/drawer.ts';
import { useOpenJob } from '../../state/job.ts';
import { StateMark } from '../../ui/StateMark.tsx';
import { RoutesForm } from './RoutesForm.tsx';
import { SiteTabs } from './SiteTabs.tsx';
import { WallDrawing } from './WallDrawing.tsx';
import { AddToWall, HolesTable, ThingForm, WallForm } from './WallForms.tsx';

/** What is found about the wall, worst first; each opens into its working. */
function WallFindings() {
  const { design, analysis } = useOpenJob();
  const open = useDrawer((store) => store.open);
  const found = useMemo(
    () =>
      analysis.findings
        .filter((finding) => checkById(finding.check).family === 'place')
        .sort(compareFindings),
    [analysis.findings],
  );
  const shown = found.filter((finding) => finding.state !== 'within');
  return (
    <section className="sheet p-3" aria-label="Findings about the wall">
      <h3 className="font-semibold">Findings</h3>
      {found.length === 0 && <p className="text-quiet">Nothing is on the wall yet, so nothing is judged.</p>}
      {found.length > 0 && shown.length === 0 && <p>Everything on the wall is within the limits entered.</p>}
      <ul>
        {shown.map((finding) => (
          <li key={`${finding.check} ${subjectKey(finding.subject)}`} className="border-t border-rule">
            <button
              type="button"
              className="flex w-full items-start gap-2 py-1 text-left hover:bg-ground"
              onClick={() => open(finding)}
            >
              <StateMark state={finding.state} />
              <span>{sentenceOf(design, finding)}</span>
            </button>
          </li>
        ))}
      </ul>
      {shown.length < found.length && shown.length > 0 && (
        <p className="text-quiet">{found.length - shown.length} more are within the limits entered.</p>
      )}
    </section>
  );
}

/** The wall where the gear stands: drawn to scale from the figures, with what is wrong about it beside it. */
export function WallStage() {
  const [chosenId, setChosenId] = useState<string>();
  return (
    <div>
      <SiteTabs />
      <h2 className="sr-only">Wall plan</h2>
      <div className="grid items-start gap-3 xl:grid-cols-[minmax(0,1fr)_380px]">
        <div className="grid gap-3">
          <div className="sheet p-2">
            <WallDrawing chosenId={chosenId} onChoose={setChosenId} />
            <p className="no-print px-2 pb-1 text-[12.5px] text-quiet">
              Drag, or choose and press arrows: 50 mm a step, with Shift 10 mm, with Alt 1 mm. Dashed outlines
              are the free space a thing asks for; crosses are drilling marks.
            </p>
          </div>
          <WallFindings />
          <HolesTable />
        </div>
        <div className="no-print grid gap-3">
          {chosenId !== undefined && (
            <ThingForm key={chosenId} id={chosenId} onGone={() => setChosenId(undefined)} />
          )}
          <AddToWall onAdded={() => setChosenId(undefined)} />
          <WallForm />
          <RoutesForm />
        </div>
      </div>
    </div>
  );
}
