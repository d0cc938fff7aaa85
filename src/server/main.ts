import { fileURLToPath } from 'node:url';
import { serve } from './serve';

/** The application as a process, on `PORT`; beside it, in the same folder, the program of its computing thread. */
process.env.NAME_LEDGER_THREAD ??= fileURLToPath(new URL('./thread.mjs', import.meta.url));
await serve(Number(process.env.PORT));
