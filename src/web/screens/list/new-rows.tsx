import { listTexts } from "../../../texts/en/list";
import { useSay } from "../../ui/texts/use-say";
/**
 * New rows that wait until somebody wants to see them, so that nothing moves under her pointer. Over the list, or
 * (`isOver` false) in a line of its own where it would cover what one wants to click.
 */
export function NewRows({ count, onShow, isOver = true }: { count: number; onShow: () => void; isOver?: boolean }) {
  const say = useSay(listTexts);
  return (
    <div role="status" className={`shrink-0 text-center ${isOver ? "relative z-20 h-0" : ""}`}>
      {count > 0 && (
        <button
          type="button"
          aria-keyshortcuts="i"
          onClick={onShow}
          className="my-1 rounded-control border border-act bg-paper px-3 py-0.5 text-sm font-semibold text-act shadow-raised hover:bg-act-soft"
        >
          {say("list.new", { count })}
        </button>
      )}
    </div>
  );
}
