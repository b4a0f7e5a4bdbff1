import type { TestProject } from "vitest/node";
import { makeTemplates, startTestCluster } from "./test-cluster";

declare module "vitest" {
  interface ProvidedContext {
    clusterPort: number;
  }
}

/** The cluster that `npm test` started, or one of our own when Vitest runs by itself. */
export default async function setUp(project: TestProject) {
  const given = process.env.TEST_CLUSTER_PORT;
  if (given !== undefined) {
    project.provide("clusterPort", Number(given));
    return;
  }
  const cluster = await startTestCluster();
  await makeTemplates(cluster);
  project.provide("clusterPort", cluster.port);
  return () => cluster.stop();
}
