import { counted, formatQuantity } from '@bastion/core';
import type { Played } from './playOutage.ts';

/** What an outage came to, by where energy came from and where it went. */
function sumsOf({ result }: Played): readonly (readonly [string, string])[] {
  const { energy, generatorMinutes, generatorStarts, litres, lowestSoc, lastedMinutes } = result;
  return [
    ['Carried for', `${Math.round((lastedMinutes / 60) * 100) / 100} h`],
    ['Bank at its lowest', `${Math.round(lowestSoc * 100)} %`],
    ['Served', formatQuantity(energy.served, 'Wh')],
    ['Not served', formatQuantity(energy.unserved, 'Wh')],
    ['From the bank, less what went in', formatQuantity(energy.battery, 'Wh')],
    ['From the sun', formatQuantity(energy.sunDc + energy.sunAc, 'Wh')],
    ['Sun held back', formatQuantity(energy.curtailed, 'Wh')],
    ['From the generator', formatQuantity(energy.generator, 'Wh')],
    ['Lost on the way, and idle', formatQuantity(energy.losses + energy.idle, 'Wh')],
    [
      'Generator',
      `${Math.round((generatorMinutes / 60) * 10) / 10} h in ${counted(generatorStarts, 'start')}, ${Math.round(litres * 10) / 10} L`,
    ],
  ];
}

/** The sums of an outage, beside those of the run that is kept. */
export function OutageSums({ played, kept }: { readonly played: Played; readonly kept: Played | undefined }) {
  const before = kept === undefined ? undefined : new Map(sumsOf(kept));
  return (
    <table className="w-full text-[13px]">
      {before !== undefined && (
        <thead className="text-quiet">
          <tr>
            <td />
            <th scope="col" className="text-left font-normal">
              now
            </th>
            <th scope="col" className="text-left font-normal">
              kept run
            </th>
          </tr>
        </thead>
      )}
      <tbody>
        {sumsOf(played).map(([what, figure]) => (
          <tr key={what}>
            <th scope="row" className="pr-3 text-left font-normal text-quiet">
              {what}
            </th>
            <td className="tabular-nums">{figure}</td>
            {before !== undefined && <td className="tabular-nums text-unknown">{before.get(what)}</td>}
          </tr>
        ))}
      </tbody>
    </table>
  );
}
