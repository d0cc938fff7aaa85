import 'reflect-metadata';
import { mkdirSync, writeFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import openapiTS, { astToString } from 'openapi-typescript';
import { OPENAPI } from '@/app/api/openapi';
import { ROOT } from './programs';

/** Writes the types of the interface for other programs from its description: for a typed client, ours in the tests first. */
const FILE = join(ROOT, 'tests/generated/api.d.ts');
mkdirSync(dirname(FILE), { recursive: true });
writeFileSync(FILE, astToString(await openapiTS(structuredClone(OPENAPI) as never)));
