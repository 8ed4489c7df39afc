import type { Unit } from '../installation/facts.ts';
import type { CompiledController, CompiledStack, Installation } from '../installation/installation.ts';
import { PLACE_WORDS } from './sensors.ts';
import { speaksForSet } from '../installation/speaksForSet.ts';
import { networkSetting } from './networkSetting.ts';
import type { Setting } from './setting.ts';

/** Ratio, place and line of the sensors and meters that a unit reads. */
export function sensorSettings(installation: Installation, compiled: CompiledStack, unit: Unit): Setting[] {
  const { instruments, site } = installation;
  const { stack } = compiled;
  if (site.instruments === 'not-needed' && instruments.length === 0)
    return speaksForSet(installation, compiled, unit)
      ? [
          {
            id: 'no-meter',
            setting: 'Meter or sensor',
            wanted: 'none',
            why: 'Decided so: nothing of the grid is read.',
          },
        ]
      : [];
  return instruments.flatMap(({ instrument, type }): Setting[] => {
    const reader = instrument.readByUnitId ?? stack.hostUnitId ?? stack.units[0]?.id;
    if (instrument.readBy !== stack.id || reader !== unit.id) return [];
    const of = type.known ? type.value : undefined;
    const place: Setting = {
      id: `place ${instrument.id}`,
      setting: `Place of ${instrument.name ?? instrument.kind}${instrument.line === undefined ? '' : `, ${instrument.line}`}`,
      wanted: instrument.at === undefined ? null : PLACE_WORDS[instrument.at],
      why: 'Its menu asks what the reading stands for.',
    };
    if (instrument.kind === 'meter')
      return [
        place,
        {
          id: `meter ${instrument.id}`,
          setting: `Meter ${instrument.name ?? ''}`.trim(),
          wanted: of?.kind === 'meter' ? of.protocol : null,
          why: 'Protocol of its type.',
        },
      ];
    return [
      place,
      {
        id: `ratio ${instrument.id}`,
        setting: `Sensor ratio${instrument.line === undefined ? '' : `, ${instrument.line}`}`,
        wanted: of?.kind === 'sensor' ? of.ratio : null,
        ...(instrument.ratio === undefined ? {} : { typed: instrument.ratio }),
        why: 'As on its label.',
      },
    ];
  });
}

/** A controller over sets, and each meter that it reads. */
export function controllerSettings({ controller, type, meterTypes }: CompiledController): Setting[] {
  const meters = controller.meters.flatMap((meter): Setting[] => {
    const found = meterTypes[meter.id];
    const of = found?.known === true ? found.value : undefined;
    const name = `${meter.role} meter`;
    return [
      {
        id: `role ${meter.id}`,
        setting: `Role of the ${name}`,
        wanted: meter.role,
        why: 'What it reads counts as this.',
      },
      {
        id: `address ${meter.id}`,
        setting: `Address of the ${name}`,
        wanted: meter.address === undefined ? null : String(meter.address),
        why: of?.addressRule === 'fixed' ? 'Fixed by its type.' : 'Each its own on its port.',
      },
      {
        id: `protocol ${meter.id}`,
        setting: `Protocol of the ${name}`,
        wanted: of?.protocol ?? null,
        why: 'Of its type.',
      },
    ];
  });
  return [
    { id: 'clock', setting: 'Date and time', wanted: 'of the site', why: 'Sets take theirs from it.' },
    {
      id: 'sets',
      setting: 'Sets it leads',
      wanted: String(controller.stackIds.length),
      why:
        type.known && type.value.commissioned === 'last'
          ? 'Commissioned last, once each set runs by itself.'
          : 'As many as are joined.',
    },
    ...networkSetting(controller.network, type, true),
    ...meters,
  ];
}
