import { makeTemplates, startTestCluster } from "./test-cluster";

/** The cluster that `npm test` started, or one of our own when Playwright runs by itself. */
export default async function setUp() {
  if (process.env.TEST_CLUSTER_PORT !== undefined) return;
  const cluster = await startTestCluster();
  await makeTemplates(cluster);
  process.env.TEST_CLUSTER_PORT = String(cluster.port);
  return () => cluster.stop();
}
