import { remember } from '../values/remember.ts';
import type { Installation } from './installation.ts';

/** What was typed, laid out as paths name it: for saying a place in words. */
export const statedOf = remember((installation: Installation) => ({
  site: installation.site,
  circuits: installation.circuits,
  partitions: installation.partitions,
  stacks: installation.stacks.map(({ stack }) => stack),
  generators: installation.generators.map(({ generator }) => generator),
  arrays: installation.arrays.map(({ array }) => array),
  controllers: installation.controllers.map(({ controller }) => controller),
  startCases: installation.startCases,
  earthPoints: installation.earthPoints,
  instruments: installation.instruments.map(({ instrument }) => instrument),
  place: installation.place,
  types: installation.types,
}));
