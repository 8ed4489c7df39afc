import {
  MAP_NUMBER,
  type MapRow,
  type ReadSpan,
  REGISTER_BLOCKS,
  rowsOfSite,
  siteRows,
  spansOf,
  valuesOfSpan,
} from '@bastion/core';
import modbus from 'modbus-serial';

const { default: ModbusClient } = modbus;
type ModbusClient = InstanceType<typeof ModbusClient>;

export interface DeviceAddress {
  readonly host: string;
  readonly port: number;
  readonly unitId: number;
  /** Rows of its own map; undefined where it answers by ours. */
  readonly rows: readonly MapRow[] | undefined;
}

export interface DeviceFigures {
  readonly figures: Readonly<Record<string, number | null>>;
  /** Requests that it refused while it answered others, each a sentence. */
  readonly refused: readonly string[];
}

/** Why a device gave no figures, as a sentence for people. */
export class DeviceLost extends Error {}

/** So long a device may take to answer, ms. */
const ANSWER_MS = 2000;
/** Between the figures of our map there are registers that exist; of another map nobody knows. */
const OWN_GAP = 12;
const HEAD = spansOf(siteRows(), OWN_GAP);
/** What says how many of each there are. */
const COUNTED = REGISTER_BLOCKS.flatMap(({ count }) => (count === undefined ? [] : [`site.${count}`]));
/** Words for the exceptions of the protocol. */
const EXCEPTIONS: Readonly<Record<number, string>> = {
  1: 'it does not know the function',
  2: 'it has no such registers',
  3: 'it does not take that many',
  4: 'it failed at it',
  6: 'it is busy',
  10: 'the way to it is not open',
  11: 'nobody answers under that unit identifier',
};

const exceptionOf = (error: unknown): number | undefined =>
  typeof error === 'object' && error !== null && 'modbusCode' in error && typeof error.modbusCode === 'number'
    ? error.modbusCode
    : undefined;

const reasonOf = (error: unknown): string => {
  const code = typeof error === 'object' && error !== null && 'code' in error ? String(error.code) : '';
  if (code === 'ECONNREFUSED') return 'nothing listens there';
  if (code === 'EHOSTUNREACH' || code === 'ENETUNREACH') return 'there is no way to it';
  return 'it answered something that cannot be read';
};

/** A device that is read by Modbus TCP, holding registers, one request after the other. */
export class ModbusDevice {
  private readonly address: DeviceAddress;
  /** The requests of the last read, and the counts that they were made from. */
  private spans: readonly ReadSpan[] | undefined;
  private counts = '';
  private client: ModbusClient | undefined;
  /** Ends the request that is under way, when the other side hangs up. There is one at a time. */
  private giveUp: ((why: DeviceLost) => void) | undefined;

  constructor(address: DeviceAddress) {
    this.address = address;
  }

  /** Everything it has, read anew. What fails is thrown as a sentence, and the connection is given up: nothing old is kept. */
  async read(): Promise<DeviceFigures> {
    try {
      await this.connect();
      const { rows } = this.address;
      if (rows !== undefined) return await this.readRows((this.spans ??= spansOf(rows, 0)), {}, []);
      const head = await this.readRows(HEAD, {}, []);
      this.checkMap(head);
      return await this.readRows(this.ownSpans(head), { ...head.figures }, [...head.refused]);
    } catch (error) {
      this.close();
      if (error instanceof DeviceLost) throw error;
      throw new DeviceLost(`${this.name()}: ${reasonOf(error)}.`);
    }
  }

  close(): void {
    const { client } = this;
    this.client = undefined;
    try {
      client?.destroy(() => undefined);
    } catch {
      // It was never open.
    }
  }

  private name(): string {
    return `${this.address.host}:${this.address.port}, unit ${this.address.unitId}`;
  }

  private async connect(): Promise<void> {
    if (this.client?.isOpen === true) return;
    this.close();
    const client = new ModbusClient();
    // What a broken connection throws later is told by the request that meets it.
    client.on('error', () => undefined);
    client.on('close', () => this.giveUp?.(new DeviceLost(`${this.name()} hung up.`)));
    this.client = client;
    const { host, port, unitId } = this.address;
    await this.answer(() => client.connectTCP(host, { port }), `${this.name()} could not be reached`);
    client.setID(unitId);
    // The wait that counts is ours: its words say who did not answer.
    client.setTimeout(2 * ANSWER_MS);
  }

  /** The requests for what the device says it has: the same as before while it says the same. */
  private ownSpans({ figures }: DeviceFigures): readonly ReadSpan[] {
    const counts = COUNTED.map((key) => figures[key]).join();
    if (this.spans === undefined || counts !== this.counts) {
      this.counts = counts;
      this.spans = spansOf(
        rowsOfSite(figures).filter(({ key }) => !key.startsWith('site.')),
        OWN_GAP,
      );
    }
    return this.spans;
  }

  private checkMap({ figures, refused }: DeviceFigures): void {
    const map = figures['site.map'];
    if (map === MAP_NUMBER) return;
    if (refused.length > 0) throw new DeviceLost(`${this.name()}: ${refused[0] ?? ''}`);
    throw new DeviceLost(
      `${this.name()} answers, but not by our register map: its first register is ${map ?? 'empty'}, not ${MAP_NUMBER}. Give it a map of its own.`,
    );
  }

  private async readRows(
    spans: readonly ReadSpan[],
    figures: Record<string, number | null>,
    refused: string[],
  ): Promise<DeviceFigures> {
    for (const span of spans) {
      const words = await this.readSpan(span);
      if (typeof words === 'string') refused.push(words);
      else for (const [key, value] of valuesOfSpan(span, words)) figures[key] = value;
    }
    return { figures, refused };
  }

  /** What a request is answered with, while the other side is there, and in time. */
  private answer<T>(ask: () => Promise<T>, what: string): Promise<T> {
    return new Promise<T>((resolve, reject) => {
      const late = setTimeout(
        () => reject(new DeviceLost(`${what} within ${ANSWER_MS / 1000} s.`)),
        ANSWER_MS,
      );
      const over = (): void => {
        clearTimeout(late);
        this.giveUp = undefined;
      };
      this.giveUp = (why) => {
        over();
        reject(why);
      };
      ask().then(
        (value) => {
          over();
          resolve(value);
        },
        (error: unknown) => {
          over();
          reject(error instanceof Error ? error : new Error(String(error)));
        },
      );
    });
  }

  /** The registers of one request, or the sentence with which it was refused. */
  private async readSpan({ address, length }: ReadSpan): Promise<readonly number[] | string> {
    const { client } = this;
    if (client?.isOpen !== true) throw new DeviceLost(`${this.name()}: the connection is gone.`);
    try {
      const { data } = await this.answer(
        () => client.readHoldingRegisters(address, length),
        `${this.name()} did not answer`,
      );
      if (data.length !== length)
        throw new DeviceLost(
          `${this.name()} answered ${data.length} registers where ${length} were asked for.`,
        );
      return data;
    } catch (error) {
      const exception = exceptionOf(error);
      if (exception === undefined) throw error;
      return `Registers ${address} to ${address + length - 1} were refused: ${EXCEPTIONS[exception] ?? `exception ${exception}`}.`;
    }
  }
}
