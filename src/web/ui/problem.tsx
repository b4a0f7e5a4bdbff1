import { Link } from "react-router";

/** A page that says that something is not to be had, and the way back. */
export function Problem({ title, text }: { title: string; text: string }) {
  return (
    <main className="mx-auto flex min-h-screen max-w-md flex-col justify-center gap-3 px-6">
      <h1 className="font-serif text-2xl">{title}</h1>
      <p className="text-soft">{text}</p>
      <p>
        <Link to="/" className="text-act underline underline-offset-2">
          Back to the tray
        </Link>
      </p>
    </main>
  );
}
