import { format } from 'date-fns';
import { useOpenJob } from '../state/job.ts';

/** Text as a string of a style sheet. */
const quoted = (text: string): string =>
  `"${text.replace(/[\\"<]/g, (sign) => `\\${sign.codePointAt(0)?.toString(16) ?? ''} `).replace(/\s+/g, ' ')}"`;

/** What stands on every printed page of a job: which job, which revision, the day it was printed, and the page. */
export function PaperFrame() {
  const { design, revision, at } = useOpenJob();
  const of = at === undefined ? `revision ${revision}` : `revision ${at}, not the latest`;
  const printed = `Zealous Bastion, ${format(new Date(), 'd MMM yyyy')}`;
  const rules = `@page {
    @top-left { content: ${quoted(design.name)}; }
    @top-right { content: ${quoted(of)}; }
    @bottom-left { content: ${quoted(printed)}; }
    @bottom-right { content: counter(page) " / " counter(pages); }
  }`;
  return <style media="print">{rules}</style>;
}
