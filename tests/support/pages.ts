import { RouterContextProvider } from "react-router";
import type { Deps, Member, TrayGrant } from "~/operations/index.server";
import {
  depsContext,
  grantContext,
  grantsContext,
  liveStateContext,
  memberContext,
  publicUrlContext,
} from "~/web/server/base/context.server";

/** A member who looks at pages: what a loader or an action is given when she asks for one, and what it answers. */
export type Visitor = {
  /** What a page is given: the value that its loader gives. */
  readonly looksAt: <T>(
    page: (args: never) => T | Promise<T>,
    params?: Readonly<Record<string, string>>,
    query?: string,
  ) => Promise<T>;
  /** What is answered to what she posts: the data and the status. */
  readonly posts: (
    action: (args: never) => unknown,
    fields: Readonly<Record<string, string | File | readonly string[]>>,
    params?: Readonly<Record<string, string>>,
  ) => Promise<{ readonly status: number; readonly data: Readonly<Record<string, unknown>> }>;
};

/** Somebody in the office, as the middleware of the routes knows her. */
export function visitor(deps: Deps, member: Member, grant: TrayGrant): Visitor {
  const argsOf = (request: Request, params: Readonly<Record<string, string>>) => {
    const context = new RouterContextProvider();
    context.set(depsContext, { ...deps, from: { address: "10.0.0.1", device: "a test" } });
    context.set(memberContext, member);
    context.set(grantContext, grant);
    context.set(grantsContext, [grant]);
    context.set(liveStateContext, "as read");
    context.set(publicUrlContext, "http://localhost");
    return { request, params: { tray: grant.tray.slug, ...params }, context } as never;
  };
  return {
    looksAt: async <T>(
      page: (args: never) => T | Promise<T>,
      params: Readonly<Record<string, string>> = {},
      query = "",
    ) => {
      const request = new Request(`http://localhost/?${query}`);
      return await page(argsOf(request, params));
    },
    async posts(action, fields, params = {}) {
      const body = new FormData();
      for (const [name, value] of Object.entries(fields))
        for (const one of [value].flat()) body.append(name, one as string | Blob);
      const answered = await action(argsOf(new Request("http://localhost/", { method: "POST", body }), params));
      return answerOf(answered);
    },
  };
}

// What `data()` of the router wraps, a plain value, or a Response.
async function answerOf(answered: unknown) {
  if (answered instanceof Response) {
    // A redirection says nothing but where to.
    const saysSomething = answered.headers.get("content-type")?.includes("json") === true;
    return { status: answered.status, data: saysSomething ? await answered.json() : {} };
  }
  const wrapped = answered as { readonly data?: unknown; readonly init?: { readonly status?: number } | null };
  const isWrapped = typeof answered === "object" && answered !== null && "init" in answered;
  return {
    status: isWrapped ? (wrapped.init?.status ?? 200) : 200,
    data: (isWrapped ? wrapped.data : answered) as Readonly<Record<string, unknown>>,
  };
}

/** The status with which a page refuses, or the error that is no refusal. */
export async function refusalOf(page: Promise<unknown>): Promise<number> {
  try {
    await page;
  } catch (refused) {
    if (refused instanceof Response) return refused.status;
    const { init } = refused as { init?: { status?: number } };
    if (init?.status !== undefined) return init.status;
    throw refused;
  }
  return 200;
}
