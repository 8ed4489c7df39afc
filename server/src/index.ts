export { buildApp, type AppOptions } from './app.ts';
export { openDatabase, type Database } from './database.ts';
