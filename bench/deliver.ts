import { createTransport } from "nodemailer";
import { letter } from "./letter";

type Order = { readonly port: number; readonly round: string; readonly count: number; readonly connections: number };

// The sender of the bench: delivers letters over several connections and says how many a second were taken.
process.once("message", async ({ port, round, count, connections }: Order) => {
  const letters = Array.from({ length: count }, (_, at) => letter(at, round));
  let next = 0;
  const start = performance.now();
  const connection = async () => {
    const transport = createTransport({
      host: "127.0.0.1",
      port,
      ignoreTLS: true,
      pool: true,
      maxConnections: 1,
      maxMessages: Number.POSITIVE_INFINITY,
    });
    for (let at = next++; at < count; at = next++) {
      const raw = letters[at] ?? Buffer.alloc(0);
      await transport.sendMail({ envelope: { from: "a@bench.example", to: "office@ottermoor.example" }, raw });
    }
    transport.close();
  };
  await Promise.all(Array.from({ length: connections }, connection));
  process.send?.(count / ((performance.now() - start) / 1_000));
  process.disconnect();
});
