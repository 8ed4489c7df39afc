import {
  bankCircuitOf,
  bankOfSet,
  type CompiledStack,
  formatQuantity,
  holdV,
  type JoinStep,
  joinSteps,
  seriesOrder,
} from '@bastion/core';
import { Fold } from '../../../ui/Fold.tsx';
import { useOpenJob } from '../../../state/job.ts';

const CAUTIONS =
  'Insulated tools, eye and face protection, no rings or watches; a battery cannot be switched off inside. Follow the manual and local rules; a licensed person decides.';

function stepWords(step: JoinStep, hold: string, isStated: boolean): string {
  const number = step.moduleNumber;
  if (!isStated)
    return step.say === 'first'
      ? `Measure module ${number} and close it onto the empty bars.`
      : `Measure module ${number} and the bars; close it only where they are within ${hold}, otherwise charge or discharge it by itself first.`;
  if (step.say === 'first')
    return `Close module ${number} onto the empty bars first: ${step.voltageV.toFixed(2)} V.`;
  const difference = `${Math.abs(step.differenceV).toFixed(2)} V ${step.differenceV < 0 ? 'below' : 'above'} the bars`;
  if (step.say === 'close')
    return `Measure, then close module ${number}: ${difference}, ${formatQuantity(step.currentA, 'A')} of ${formatQuantity(step.limitA, 'A')}.`;
  return `Do not close module ${number} yet: ${difference} would drive ${formatQuantity(step.currentA, 'A')} (${formatQuantity(step.limitA, 'A')} may flow). ${step.differenceV < 0 ? 'Charge' : 'Discharge'} it by itself until it is within ${hold}, then close.`;
}

/** In which order modules come onto the bars, with what each would drive; for a series stack, its links with polarity. */
export function JoinPanel({ compiled }: { readonly compiled: CompiledStack }) {
  const { analysis } = useOpenJob();
  const { stack } = compiled;
  const bank = bankOfSet(compiled);
  if (!bank.known || bank.value === 'none') return null;
  const { type, moduleCount, nominalV } = bank.value;
  if (type.joining === 'series') {
    const links = seriesOrder(moduleCount, type.nominalV, type.serviceDisconnect === 'yes');
    return (
      <details className="mt-3">
        <summary className="font-semibold">Order of joining the series stack, link by link</summary>
        <p className="font-semibold text-tight">{CAUTIONS}</p>
        <ol className="mt-1 list-decimal pl-6">
          {links.map((link) => (
            <li key={link.from} className="border-t border-rule py-0.5">
              <strong>
                {link.from} to {link.to}
              </strong>
              : {link.note}
              {link.voltageV > 0 && `; ${formatQuantity(link.voltageV, 'V')} across what is joined`}
            </li>
          ))}
        </ol>
      </details>
    );
  }
  const circuit = bankCircuitOf(compiled);
  if (moduleCount < 2 || !circuit.known || typeof circuit.value === 'string') return null;
  const isStated =
    typeof stack.bank === 'object' && stack.bank.modules.some((module) => module.stateOfCharge !== undefined);
  const { joiningV } = analysis.installation.defaults;
  const hold = formatQuantity(holdV(joiningV.value, nominalV), 'V');
  return (
    <Fold
      title="Bringing the modules together"
      checks={['bank.join']}
      about={{ kind: 'stack', id: stack.id }}
    >
      <p className="font-semibold text-tight">{CAUTIONS}</p>
      {!isStated && (
        <p className="text-unknown">
          States of charge are not stated, so no voltages or currents can be said beforehand.
        </p>
      )}
      <ol className="mt-1 list-decimal pl-6">
        {joinSteps(circuit.value, joiningV.value).map((step) => (
          <li
            key={step.moduleNumber}
            className={`border-t border-rule py-0.5 ${step.say === 'bring-nearer' ? 'font-semibold text-over' : ''}`}
          >
            {stepWords(step, hold, isStated)}
          </li>
        ))}
      </ol>
    </Fold>
  );
}
