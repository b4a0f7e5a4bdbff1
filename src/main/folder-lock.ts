import { mkdirSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { err, ok, type Result } from "../core/kernel/result";

/** Takes a folder for this process; the refusal is the process that has it. The value lets go of it. */
export function takeFolder(folder: string): Result<() => void, number> {
  mkdirSync(folder, { recursive: true });
  const file = join(folder, "process");
  const owner = ownerOf(file);
  if (owner !== null && owner !== process.pid && runsOurs(owner)) return err(owner);
  writeFileSync(file, String(process.pid));
  return ok(() => rmSync(file, { force: true }));
}

function ownerOf(file: string): number | null {
  try {
    return Number(readFileSync(file, "utf8")) || null;
  } catch {
    return null;
  }
}

// After a kill -9 the number may belong to anything.
function runsOurs(pid: number): boolean {
  try {
    return readFileSync(`/proc/${pid}/cmdline`, "utf8").includes("main/demo");
  } catch {
    return false;
  }
}
