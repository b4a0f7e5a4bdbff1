import { describe, expect, it } from "vitest";
import { readConfig } from "./config";

const right = { DATABASE_URL: "postgres://tray@db.example/tray", SMTP_OUT_HOST: "mail.example" };
const problems = (environment: Record<string, string>) => {
  const config = readConfig(environment);
  return config.ok ? [] : config.error;
};

describe("the configuration", () => {
  it("needs a database and a way out, the rest has defaults", () => {
    expect(readConfig(right)).toMatchObject({
      ok: true,
      value: {
        http: { host: "127.0.0.1", port: 3000, secureCookies: true },
        mailIn: { port: 2525 },
        mailOut: { auth: null, port: 25 },
        demo: false,
      },
    });
  });
  it("reports all problems at once, each with what to do", () => {
    const said = problems({ HTTP_PORT: "25a", LOG_LEVEL: "loud", SMTP_OUT_HOST: "mail.example" });
    expect(said).toHaveLength(3);
    expect(said.join("\n")).toContain('HTTP_PORT is "25a": give a number from 0 to 65535');
    expect(said.join("\n")).toContain("DATABASE_URL is not set: give the address of the database");
  });
  it("never repeats a secret", () => {
    expect(problems({ ...right, DATABASE_URL: "mysql://me:secret@x" }).join()).not.toContain("secret");
  });
  it("takes a variable that is empty for one that is not set", () => {
    expect(problems({ ...right, HTTP_PORT: "", SMTP_OUT_USER: "" })).toEqual([]);
  });
  it("sends requests to leave lists outside, or where it is told for trying things out", () => {
    expect(readConfig(right)).toMatchObject({ value: { oneClickVia: null } });
    expect(readConfig({ ...right, ONE_CLICK_VIA: "http://127.0.0.1:8025" })).toMatchObject({
      value: { oneClickVia: "http://127.0.0.1:8025" },
    });
    expect(problems({ ...right, ONE_CLICK_VIA: "stand-in" })).toHaveLength(1);
  });
  it("wants user and password together", () => {
    expect(problems({ ...right, SMTP_OUT_USER: "me" })).toEqual([
      "SMTP_OUT_USER and SMTP_OUT_PASSWORD: give both or neither",
    ]);
  });
});
