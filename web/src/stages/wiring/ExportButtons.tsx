import { type Drawing, onSheet, svgOf } from '@bastion/core';
import { Download } from 'lucide-react';
import { noteExport } from '../../state/noteExport.ts';
import { useOpenJob } from '../../state/job.ts';
import { useSession } from '../../state/session.ts';

function download(name: string, text: string, type: string): void {
  const link = document.createElement('a');
  link.href = URL.createObjectURL(new Blob([text], { type }));
  link.download = name;
  link.click();
  setTimeout(() => URL.revokeObjectURL(link.href), 1000);
}

/** The drawing as a file with its title block. The PDF is made by the server from the saved revision. */
export function ExportButtons({
  drawing,
  modeId,
  modeLabel,
}: {
  readonly drawing: Drawing;
  readonly modeId: string;
  readonly modeLabel: string;
}) {
  const { id, design, revision } = useOpenJob();
  const session = useSession((store) => store.session);
  const file = design.name.replace(/[^A-Za-z0-9 _-]/g, '').slice(0, 60);
  const sheet = (): Drawing =>
    onSheet(drawing, {
      job: design.name,
      revision: String(revision),
      mode: modeLabel,
      date: new Date().toISOString().slice(0, 10),
      name: session.kind === 'in' ? session.user.name : '',
    });
  return (
    <div className="no-print flex flex-wrap gap-1.5">
      <button
        type="button"
        className="button"
        onClick={() => {
          noteExport('svg');
          download(`${file} single line.svg`, svgOf(sheet()), 'image/svg+xml');
        }}
      >
        <Download size={15} aria-hidden="true" /> SVG
      </button>
      <button
        type="button"
        className="button"
        onClick={() => {
          noteExport('dxf');
          void import('@bastion/core/dxf').then(({ dxfOf }) =>
            download(`${file} single line.dxf`, dxfOf(sheet()), 'application/dxf'),
          );
        }}
      >
        <Download size={15} aria-hidden="true" /> DXF
      </button>
      <a
        className="button"
        href={`/api/jobs/${id}/drawing.pdf?mode=${encodeURIComponent(modeId)}`}
        target="_blank"
        rel="noreferrer"
      >
        <Download size={15} aria-hidden="true" /> PDF
      </a>
    </div>
  );
}
