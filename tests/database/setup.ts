import type { TestProject } from 'vitest/node';
import { startTestServer } from './postgres';

declare module 'vitest' {
  export interface ProvidedContext {
    postgresUrl: string;
  }
}

export default async function setup(project: TestProject): Promise<() => Promise<void>> {
  const server = await startTestServer(true);
  project.provide('postgresUrl', server.url);
  return () => server.stop();
}
