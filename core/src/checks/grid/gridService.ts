import { buildingBoard } from '../../figures/loads/boards.ts';
import { all, type Known, known } from '../../values/known.ts';
import { add, complex, magnitude, ZERO } from '../../network/complex.ts';
import { type Check, type CheckContext, judge, unknownFinding, checkOf } from '../check.ts';
import type { Found, Subject } from '../finding.ts';
import { gridChargingW } from '../../figures/capability/acCharge.ts';
import { lineInputs, loadCaseNotes, loadCaseWords, symbol } from '../support/workings.ts';

/** None in maintenance bypass, where the inverters stand aside. */
const chargingW = ({ mode, installation }: CheckContext, line: number): Known<number> =>
  mode.kind === 'maintenance-bypass' ? known(0) : gridChargingW(installation, line);

/** The whole building with charging against the service rating, line by line. */
export const gridService: Check<'grid.service'> = checkOf({
  id: 'grid.service',
  title: 'Service current',
  family: 'grid',
  modes: ['on-grid', 'maintenance-bypass'],
  sentences: {
    over: '{{subject}} is asked for {{value}} and is rated {{limit}}: over by {{margin}}.',
    tight: '{{subject}} carries {{value}} of {{limit}}: {{margin}} left.',
    within: '{{subject}} carries {{value}} of {{limit}}: {{margin}} left.',
    unknown: '{{subject}}: the service current cannot be judged yet. Missing: {{missing}}.',
  },
  run: (context) => {
    const { installation } = context;
    const { site } = installation;
    const given = all({
      supply: installation.supply,
      board: buildingBoard(installation),
      voltage: installation.lineVoltageV,
    });
    if (!given.known) {
      const subject: Subject = { kind: 'service', id: 'service', label: 'Service' };
      return [unknownFinding(gridService.id, context, subject, 'A', given.missing)];
    }
    const { supply, board, voltage } = given.value;
    return supply.lines.map((line, index): Found => {
      const charge = chargingW(context, index);
      const chargeW = charge.known ? charge.value : 0;
      const power = add(board.continuous.knownPart[index] ?? ZERO, complex(chargeW, 0));
      const value = magnitude(power) / voltage;
      return judge(gridService.id, context, {
        subject: {
          kind: 'service',
          id: `service/${line}`,
          label: `Service ${line}`,
          about: [
            { kind: 'service', id: 'service' },
            { kind: 'supply-line', id: line },
          ],
        },
        value,
        limit: site.serviceRatingA,
        unit: 'A',
        missing: [
          ...board.continuous.missing,
          ...(charge.known ? [] : charge.missing),
          ...(site.serviceRatingA === undefined ? [['site', 'serviceRatingA']] : []),
        ],
        working: () => ({
          steps: [
            ...(charge.known
              ? [
                  {
                    symbol: 'I',
                    meaning: 'service current of the line',
                    formula: '√((P + P_ch) · (P + P_ch) + Q · Q) / V',
                    symbols: [
                      symbol('P_ch', 'charging from the grid', chargeW, 'W'),
                      symbol(
                        'P',
                        `real power of the whole building on this line, ${loadCaseWords(board)}`,
                        power.re - chargeW,
                        'W',
                      ),
                      symbol('Q', `reactive power, ${loadCaseWords(board)}`, power.im, 'var'),
                      symbol('V', 'line to neutral', voltage, 'V', ['site', 'lineVoltageV']),
                    ],
                    value,
                    unit: 'A',
                  },
                ]
              : []),
          ],
          inputs: lineInputs(board, line),
          source: 'Phasor sum of all circuits, with charging in phase.',
          notes: loadCaseNotes(board, index),
        }),
      });
    });
  },
});
