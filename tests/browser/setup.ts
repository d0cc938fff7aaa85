import type { TestProject } from 'vitest/node';
import { build } from '../../bin/support/app';
import { startTestServer } from '../database/postgres';

export default async function setup(project: TestProject): Promise<() => Promise<void>> {
  build();
  const server = await startTestServer();
  project.provide('postgresUrl', server.url);
  return () => server.stop();
}
