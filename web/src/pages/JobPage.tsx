import { type Design, STAGES } from '@bastion/core';
import { Download, Redo2, Search, Undo2 } from 'lucide-react';
import { useEffect, useState } from 'react';
import { Link, Outlet, useNavigate, useParams } from 'react-router';
import { api, failureSentence } from '../api/client.ts';
import { downloadDesign } from '../state/documentFile.ts';
import { useJob, useOpenJob } from '../state/job.ts';
import { noteExport } from '../state/noteExport.ts';
import { OldRevisionBar } from '../stages/revisions/OldRevisionBar.tsx';
import { DocumentFileButton } from '../ui/DocumentFileButton.tsx';
import { FirstValuesBar } from '../ui/FirstValuesBar.tsx';
import { ConflictDialog } from '../ui/ConflictDialog.tsx';
import { useFieldFromAddress } from '../ui/fieldLinks.ts';
import { ModeRibbon } from '../ui/ModeRibbon.tsx';
import { Palette } from '../ui/Palette.tsx';
import { PaperFrame } from '../ui/PaperFrame.tsx';
import { SaveMark } from '../ui/SaveMark.tsx';
import { StageRail } from '../ui/StageRail.tsx';
import { VariantMenu } from '../ui/VariantMenu.tsx';
import { WorkingDrawer } from '../ui/WorkingDrawer.tsx';

function DocumentButtons() {
  const { id, design, revision, canEdit } = useOpenJob();
  const tell = useJob((store) => store.tell);
  const open = useJob((store) => store.open);
  const save = useJob((store) => store.save);
  const bring = async (next: Design, fileName: string): Promise<void> => {
    try {
      await api.replaceDocument(id, next, revision);
      await open(id);
      tell(`${fileName} was taken over. The earlier design is kept as a revision.`);
    } catch (error) {
      tell(failureSentence(error));
    }
  };
  return (
    <>
      <button
        type="button"
        className="button button-quiet"
        onClick={() => {
          noteExport('json');
          downloadDesign(design);
        }}
      >
        <Download size={15} aria-hidden="true" /> Export
      </button>
      <DocumentFileButton
        label="Import"
        chooserLabel="JSON file to replace this design"
        className="button-quiet"
        disabled={!canEdit || save.kind !== 'saved'}
        onDesign={(next, fileName) => void bring(next, fileName)}
        onFail={tell}
      />
    </>
  );
}

function UndoButtons() {
  const { undo, redo, undoSteps, redoSteps } = useJob();
  const last = undoSteps.at(-1);
  const next = redoSteps.at(-1);
  return (
    <>
      <button
        type="button"
        className="button button-quiet"
        disabled={last === undefined}
        onClick={undo}
        aria-label={last === undefined ? 'Undo' : `Undo: ${last.label}`}
        title={last?.label}
      >
        <Undo2 size={16} aria-hidden="true" />
      </button>
      <button
        type="button"
        className="button button-quiet"
        disabled={next === undefined}
        onClick={redo}
        aria-label={next === undefined ? 'Do again' : `Do again: ${next.label}`}
        title={next?.label}
      >
        <Redo2 size={16} aria-hidden="true" />
      </button>
    </>
  );
}

function Workspace({ onPalette }: { readonly onPalette: () => void }) {
  const { id, design, canEdit, canAccept, canNote, at } = useOpenJob();
  const notice = useJob((store) => store.notice);
  const tell = useJob((store) => store.tell);
  useFieldFromAddress();
  useEffect(() => {
    document.title = `${design.name} · Zealous Bastion`;
  }, [design.name]);
  return (
    <div className="flex h-full flex-col print:block print:h-auto">
      <PaperFrame />
      <div className="no-print flex items-center gap-x-2 border-b border-rule px-3 sm:flex-wrap">
        <h1 className="mr-2 min-w-0 truncate text-[15px]">{design.name}</h1>
        <SaveMark />
        {!canEdit && at === undefined && (
          <span className="text-quiet max-sm:hidden">
            {canAccept
              ? 'You may accept findings, not change the design.'
              : canNote
                ? 'You may write notes and run tests, not change the design.'
                : 'You may look at this design, not change it.'}
          </span>
        )}
        <span className="flex-1" />
        <button type="button" className="button button-quiet" onClick={onPalette} title="Ctrl K">
          <Search size={15} aria-hidden="true" /> <span className="max-sm:sr-only">Find</span>
        </button>
        {canEdit && <UndoButtons />}
        <span className="contents max-sm:hidden">
          <VariantMenu />
          <DocumentButtons />
        </span>
      </div>
      <OldRevisionBar />
      <div className="no-print border-b border-rule">
        <ModeRibbon />
      </div>
      <div role="status" className="no-print bg-chosen px-3 empty:hidden">
        {notice !== '' && (
          <span className="flex items-center gap-3 py-1">
            <span className="flex-1">{notice}</span>
            <button type="button" className="button button-quiet" onClick={() => tell('')}>
              Dismiss
            </button>
          </span>
        )}
      </div>
      <div className="flex min-h-0 flex-1 max-lg:flex-col print:block">
        <StageRail jobId={id} />
        <main
          className="relative min-h-0 min-w-0 flex-1 overflow-auto p-4 print:overflow-visible"
          tabIndex={-1}
        >
          <FirstValuesBar />
          <Outlet />
        </main>
      </div>
      <WorkingDrawer />
      <ConflictDialog />
    </div>
  );
}

/** One job with its stages. Opens it, listens to the keyboard for undo, and closes it again. */
export function JobPage() {
  const jobId = Number(useParams().jobId);
  const { state, message, open, close, undo, redo } = useJob();
  const [paletteIsOpen, setPaletteIsOpen] = useState(false);
  const navigate = useNavigate();
  useEffect(() => {
    void open(jobId);
    return close;
  }, [jobId, open, close]);
  useEffect(() => {
    // What is being typed when the window is left is taken over as if the field had been left.
    const leaveField = (): void => {
      if (document.activeElement instanceof HTMLElement) document.activeElement.blur();
    };
    window.addEventListener('beforeunload', leaveField);
    return () => window.removeEventListener('beforeunload', leaveField);
  }, []);
  useEffect(() => {
    const onKey = (event: KeyboardEvent): void => {
      const key = event.key.toLowerCase();
      const stage =
        event.altKey && !event.ctrlKey ? STAGES[Number(event.code.replace('Digit', '')) - 1] : undefined;
      if (stage !== undefined) {
        event.preventDefault();
        void navigate(`/jobs/${jobId}/${stage.key}`);
        return;
      }
      if ((event.ctrlKey || event.metaKey) && key === 'k') {
        event.preventDefault();
        setPaletteIsOpen(true);
        return;
      }
      const inText = event.target instanceof HTMLInputElement;
      if (!(event.ctrlKey || event.metaKey) || inText) return;
      if (key === 'z') (event.shiftKey ? redo : undo)();
      else if (key === 'y') redo();
      else return;
      event.preventDefault();
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, [undo, redo, navigate, jobId]);
  if (state === 'failed') {
    return (
      <main className="p-8">
        <h1>This job cannot be opened</h1>
        <p className="mt-2">{message}</p>
        <p className="mt-4 flex gap-2">
          <button type="button" className="button" onClick={() => void open(jobId)}>
            Try again
          </button>
          <Link to="/" className="button">
            To the jobs
          </Link>
        </p>
      </main>
    );
  }
  return state === 'open' ? (
    <>
      <Workspace onPalette={() => setPaletteIsOpen(true)} />
      {paletteIsOpen && <Palette onClose={() => setPaletteIsOpen(false)} />}
    </>
  ) : (
    <p className="p-8 text-quiet">Opening the job…</p>
  );
}
