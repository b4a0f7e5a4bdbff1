import type { ReactNode } from "react";
import { commonTexts } from "../../../texts/en/common";
import { Button } from "../../ui/button";
import { useSay } from "../../ui/texts/use-say";

type FormFootProps = {
  /** What the server or the form says against it as a whole. */
  readonly problem: string | null | undefined;
  readonly onClose: () => void;
  /** The buttons that do something, the usual one last. */
  readonly children: ReactNode;
};

/** The end of a form or dialog: what is wrong as a whole, and the ways out of it. */
export function FormFoot({ problem, onClose, children }: FormFootProps) {
  const say = useSay(commonTexts);
  return (
    <>
      {problem != null && (
        <p role="alert" className="text-late">
          {problem}
        </p>
      )}
      <div className="flex justify-end gap-2">
        <Button look="quiet" onClick={onClose}>
          {say("common.cancel")}
        </Button>
        {children}
      </div>
    </>
  );
}
