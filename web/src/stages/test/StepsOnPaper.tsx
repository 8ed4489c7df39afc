import { bandFigures, type Procedure, type ReadingSpec, type wire } from '@bastion/core';
import { usePrinting } from '../../ui/usePrinting.ts';
import { currentValues, stepVerdict, VERDICT_WORDS } from './runView.ts';

interface StepsOnPaperProps {
  readonly procedure: Procedure;
  /** What was read so far; before a run there is nothing. */
  readonly readings?: readonly wire.Reading[];
}

function expected(spec: ReadingSpec): string {
  if (spec.kind === 'confirmation') return 'yes';
  if (spec.missing.length > 0) return `cannot be judged: ${spec.missing.join('; ')} missing`;
  if (spec.expected === undefined) return 'recorded';
  return `${bandFigures(spec, spec.expected)} ${spec.unit}`.trim();
}

const shown = (spec: ReadingSpec, reading: wire.Reading | undefined): string =>
  reading === undefined
    ? ''
    : spec.kind === 'confirmation'
      ? reading.value === 1
        ? 'yes'
        : 'no'
      : `${reading.value} ${spec.unit}`.trim();

/** Every step of the test with what it asks for, on paper alone: to be read before, written on, or kept. */
export function StepsOnPaper({ procedure, readings = [] }: StepsOnPaperProps) {
  if (!usePrinting()) return null;
  return (
    <section aria-label="All steps">
      {procedure.steps.map((step, index) => {
        const { values } = currentValues(step, readings);
        const verdict = stepVerdict(step, readings);
        return (
          <article key={step.id} className="mt-3 border-t border-rule pt-1">
            <h3 className="font-semibold">
              {index + 1}. {step.title}
              {verdict !== 'pending' && ` – ${VERDICT_WORDS[verdict]}`}
            </h3>
            {step.cautions.map((caution, at) => (
              <p key={at}>
                <strong>Caution:</strong> {caution}
              </p>
            ))}
            {step.instructions.map((instruction, at) => (
              <p key={at}>{instruction}</p>
            ))}
            {step.abortText !== undefined && (
              <p>
                <strong>Abort:</strong> {step.abortText}
              </p>
            )}
            {step.readings.length > 0 && (
              <table className="w-full">
                <thead>
                  <tr className="text-left">
                    <th scope="col">Reading</th>
                    <th scope="col">Expected</th>
                    <th scope="col">With</th>
                    <th scope="col" className="w-32">
                      Read
                    </th>
                  </tr>
                </thead>
                <tbody>
                  {step.readings.map((spec) => (
                    <tr key={spec.id} className="border-t border-rule">
                      <td className="py-1 pr-2">{spec.label}</td>
                      <td className="pr-2">{expected(spec)}</td>
                      <td className="pr-2">{spec.instrument}</td>
                      <td className="border-b border-ink font-semibold">
                        {shown(spec, values.get(spec.id))}
                      </td>
                    </tr>
                  ))}
                </tbody>
              </table>
            )}
          </article>
        );
      })}
    </section>
  );
}
