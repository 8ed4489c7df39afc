import {
  type Analysis,
  analyse,
  type CompareGroup,
  type CompareRow,
  compareVariants,
  readDesign,
  SAMPLE_TYPES,
  type wire,
} from '@bastion/core';
import { useEffect, useMemo, useState } from 'react';
import { Link } from 'react-router';
import { api, failureSentence } from '../../api/client.ts';
import { useDrawer } from '../../state/drawer.ts';
import { useOpenJob } from '../../state/job.ts';
import { ratioOf } from '../../ui/FindingStrip.tsx';
import { HeadroomStrip } from '../../ui/HeadroomStrip.tsx';

const GROUPS: readonly { readonly key: CompareGroup; readonly title: string }[] = [
  { key: 'headroom', title: 'Headroom in island' },
  { key: 'findings', title: 'Findings, the worst over all modes' },
  { key: 'autonomy', title: 'Autonomy' },
  { key: 'parts', title: 'Parts' },
];

interface Loaded {
  readonly variant: wire.Variant;
  readonly analysis: Analysis;
}

async function loadOther(variant: wire.Variant): Promise<Loaded> {
  const read = readDesign((await api.job(variant.jobId)).document, SAMPLE_TYPES);
  if (!read.ok) throw new Error(`${variant.name} cannot be read: ${read.problems[0]?.message ?? ''}`);
  return { variant, analysis: analyse(read.value, SAMPLE_TYPES) };
}

/** All variants of the open job: the open one as it stands on the screen, the others from the server. */
function useVariants() {
  const { id, analysis } = useOpenJob();
  const [others, setOthers] = useState<readonly Loaded[]>();
  const [here, setHere] = useState<wire.Variant>();
  const [failure, setFailure] = useState('');
  useEffect(() => {
    let isCurrent = true;
    const load = async (): Promise<void> => {
      const list = await api.variants(id);
      const loaded = await Promise.all(list.filter((one) => one.jobId !== id).map(loadOther));
      if (!isCurrent) return;
      setHere(list.find((one) => one.jobId === id));
      setOthers(loaded);
    };
    load().catch((error: unknown) => isCurrent && setFailure(failureSentence(error)));
    return () => {
      isCurrent = false;
    };
  }, [id]);
  const all = useMemo(
    () => (here === undefined || others === undefined ? undefined : [{ variant: here, analysis }, ...others]),
    [here, others, analysis],
  );
  return { all, failure };
}

function CellView({ cell }: { readonly cell: CompareRow['cells'][number] }) {
  const open = useDrawer((store) => store.open);
  const { finding, text } = cell;
  if (finding === undefined) return <>{text}</>;
  return (
    <button
      type="button"
      className="grid w-full grid-cols-[minmax(4rem,1fr)_9rem] items-center gap-2 text-left"
      onClick={() => open(finding)}
    >
      <HeadroomStrip state={finding.state} ratio={ratioOf(finding)} />
      <span className={`condensed text-right ${finding.state === 'over' ? 'font-semibold text-over' : ''}`}>
        {text}
      </span>
    </button>
  );
}

function Rows({
  title,
  rows,
  columns,
}: {
  readonly title: string;
  readonly rows: readonly CompareRow[];
  readonly columns: number;
}) {
  if (rows.length === 0) return null;
  return (
    <tbody>
      <tr>
        <th colSpan={columns + 1} scope="rowgroup" className="pt-3 pb-1 text-left text-[14px] font-semibold">
          {title}
        </th>
      </tr>
      {rows.map((row) => (
        <tr key={row.label} className={`border-t border-rule ${row.differs ? 'bg-chosen' : ''}`}>
          <th scope="row" className="py-1 pr-3 pl-1 text-left font-normal">
            {row.differs && (
              <span className="mr-1 font-bold text-touch" title="Differs">
                ≠<span className="sr-only"> differs: </span>
              </span>
            )}
            {row.label}
          </th>
          {row.cells.map((cell, index) => (
            <td key={index} className="py-1 pr-3">
              <CellView cell={cell} />
            </td>
          ))}
        </tr>
      ))}
    </tbody>
  );
}

/** The variants of a job side by side; what differs is marked. */
export function CompareStage() {
  const { id } = useOpenJob();
  const { all, failure } = useVariants();
  const [onlyDiffering, setOnlyDiffering] = useState(true);
  const rows = useMemo(
    () =>
      all === undefined
        ? []
        : compareVariants(
            all.map((one) => one.analysis),
            SAMPLE_TYPES,
          ),
    [all],
  );
  const shown = onlyDiffering ? rows.filter((row) => row.differs) : rows;
  return (
    <div className="max-w-6xl">
      <h2>Variants side by side</h2>
      <p role="alert" className="font-semibold text-over empty:hidden">
        {failure}
      </p>
      {all === undefined && failure === '' && <p className="mt-2 text-quiet">Fetching the variants…</p>}
      {all?.length === 1 && (
        <p className="sheet mt-2 p-4">
          This job has one design. Take a variant from it with “Variant” at the top: it starts as a copy, and
          this page then shows what differs.
        </p>
      )}
      {all !== undefined && all.length > 1 && (
        <>
          <label className="my-2 flex items-center gap-2">
            <input
              type="checkbox"
              checked={onlyDiffering}
              onChange={(event) => setOnlyDiffering(event.target.checked)}
            />
            Only what differs ({rows.filter((row) => row.differs).length} of {rows.length})
          </label>
          <div className="sheet relative overflow-x-auto p-3">
            <table className="w-full min-w-[560px] table-fixed">
              <thead>
                <tr className="text-left">
                  <th className="w-64">
                    <span className="sr-only">What is compared</span>
                  </th>
                  {all.map(({ variant }) => (
                    <th key={variant.jobId} scope="col" className="text-[15px]">
                      {variant.jobId === id ? (
                        <>
                          {variant.name} <span className="font-normal text-quiet">open now</span>
                        </>
                      ) : (
                        <Link to={`/jobs/${variant.jobId}/compare`}>{variant.name}</Link>
                      )}
                    </th>
                  ))}
                </tr>
              </thead>
              {GROUPS.map(({ key, title }) => (
                <Rows
                  key={key}
                  title={title}
                  rows={shown.filter((row) => row.group === key)}
                  columns={all.length}
                />
              ))}
            </table>
            {shown.length === 0 && (
              <p className="mt-2">The variants do not differ in anything compared here.</p>
            )}
          </div>
        </>
      )}
    </div>
  );
}
