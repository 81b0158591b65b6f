/** The store of this server process, opened at first use. */
import { openDatabase } from './database.js';
import { planStore, type PlanStore } from './store.js';

let opened: Promise<PlanStore> | null = null;

/** The plan store on the file that ANABATIC_DB names. */
export function store(): Promise<PlanStore> {
  opened ??= openDatabase(process.env['ANABATIC_DB'] ?? 'var/anabatic.sqlite').then(planStore);
  return opened;
}
