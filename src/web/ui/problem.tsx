import type { ReactNode } from "react";
import { Link } from "react-router";
import { uiTexts } from "../../texts/en/ui";
import { useSay } from "./texts/use-say";

/** A page that says that something is not to be had, and the way back; `children` are other ways on. */
export function Problem({ title, text, children }: { title: string; text: string; children?: ReactNode }) {
  const say = useSay(uiTexts);
  return (
    <main className="mx-auto flex min-h-screen max-w-md flex-col justify-center gap-3 px-6">
      <h1 className="font-serif text-2xl">{title}</h1>
      <p className="text-soft">{text}</p>
      <p className="flex items-center gap-4">
        {children}
        <Link to="/" className="text-act underline underline-offset-2">
          {say("ui.backToTheTray")}
        </Link>
      </p>
    </main>
  );
}
