import { commandsOfWrite, siteValues } from '@bastion/core';
import modbus from 'modbus-serial';
import type { Sites } from './sites.ts';

/** Exceptions of the protocol. */
const ILLEGAL_ADDRESS = 2;
const ILLEGAL_VALUE = 3;
const NO_SUCH_UNIT = 11;

class Refusal extends Error {
  readonly modbusErrorCode: number;
  constructor(code: number) {
    super(`Modbus exception ${code}`);
    this.modbusErrorCode = code;
  }
}

function readWords(sites: Sites, address: number, length: number, unitId: number): number[] {
  const site = sites.byUnitId(unitId);
  if (site === undefined) throw new Refusal(NO_SUCH_UNIT);
  const words = sites.words(site);
  const read = Array.from({ length }, (_, at) => words.get(address + at));
  // Between figures there are registers that mean nothing; where a request meets no figure at all there is nothing.
  if (read.every((word) => word === undefined)) throw new Refusal(ILLEGAL_ADDRESS);
  return read.map((word) => word ?? 0);
}

function writeWords(sites: Sites, address: number, words: readonly number[], unitId: number): void {
  const site = sites.byUnitId(unitId);
  if (site === undefined) throw new Refusal(NO_SUCH_UNIT);
  const asked = commandsOfWrite(site.plan, siteValues(site.plan, site.state), address, words);
  if (!asked.ok) throw new Refusal(asked.problem === 'out of range' ? ILLEGAL_VALUE : ILLEGAL_ADDRESS);
  for (const command of asked.commands)
    if (sites.command(site, command) !== undefined) throw new Refusal(ILLEGAL_VALUE);
}

export interface ModbusServer {
  readonly close: () => Promise<void>;
}

/** Answers for every open site by Modbus TCP: functions 3, 4, 6 and 16, each site under its own unit identifier. */
export function serveModbus(sites: Sites, host: string, port: number): Promise<ModbusServer> {
  const read = (address: number, length: number, unitId: number): number[] =>
    readWords(sites, address, length, unitId);
  const readOne = (address: number, unitId: number): number => read(address, 1, unitId)[0] ?? 0;
  const server = new modbus.ServerTCP(
    {
      getMultipleHoldingRegisters: read,
      getMultipleInputRegisters: read,
      getHoldingRegister: readOne,
      getInputRegister: readOne,
      setRegister: (address: number, value: number, unitId: number) =>
        writeWords(sites, address, [value], unitId),
      setRegisterArray: (address: number, values: number[], unitId: number) =>
        writeWords(sites, address, values, unitId),
    },
    // 0: it answers for all identifiers.
    { host, port, unitID: 0 },
  );
  server.on('socketError', () => undefined);
  return new Promise((resolve, reject) => {
    server.on('serverError', (error) => reject(error ?? new Error('The port cannot be opened.')));
    server.on('error', () => undefined);
    server.on('initialized', () =>
      resolve({
        close: () =>
          new Promise((done) => {
            for (const socket of server.socks.keys()) socket.destroy();
            server.close(() => done());
          }),
      }),
    );
  });
}
