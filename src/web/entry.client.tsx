import { StrictMode, startTransition } from "react";
import { hydrateRoot } from "react-dom/client";
import { HydratedRouter } from "react-router/dom";
import { loadLanguage } from "../texts/say";

function hydrate(): void {
  startTransition(() => {
    hydrateRoot(
      document,
      <StrictMode>
        <HydratedRouter />
      </StrictMode>,
    );
  });
}

// A page that cannot be had in its language is had in English.
loadLanguage(document.documentElement.lang).then(hydrate, hydrate);
