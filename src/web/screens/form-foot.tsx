import { Button } from "../ui/button";

type FormFootProps = {
  /** What is wrong with it as a whole; null or undefined where nothing is. */
  readonly problem: string | null | undefined;
  readonly submits: string;
  readonly isBusy: boolean;
  readonly onClose: () => void;
};

/** The end of a form at the side of a page: what is wrong as a whole, and the ways out. */
export function FormFoot({ problem, submits, isBusy, onClose }: FormFootProps) {
  return (
    <>
      {problem != null && (
        <p role="alert" className="text-late">
          {problem}
        </p>
      )}
      <div className="flex justify-end gap-2">
        <Button look="quiet" onClick={onClose}>
          Cancel
        </Button>
        <Button look="filled" type="submit" disabled={isBusy}>
          {submits}
        </Button>
      </div>
    </>
  );
}
