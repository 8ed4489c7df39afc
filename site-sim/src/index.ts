export { controlOf } from './control.ts';
export { type ModbusServer, serveModbus } from './modbusServer.ts';
export { type OpenedSite, Sites } from './sites.ts';
