import { Fragment } from "react";
import { Link } from "react-router";
import { brokenRuns } from "../../../core/kernel/broken-runs";
import type { TextBlock } from "../../server/conversation/text-blocks.server";
import { useTray } from "../frame/tray-data";

/** Plain text with its links, quotations indented by their depth; each paragraph runs as its own letters do. */
export function TextBlocks({ blocks, className }: { blocks: readonly TextBlock[]; className: string }) {
  const { tray, mayDecide } = useTray();
  return (
    <div className={`prose-own max-w-[68ch] space-y-2 ${className}`}>
      {blocks.map(({ level, isDrawn, pieces, key }) => (
        <p
          key={key}
          dir="auto"
          style={level === 0 ? undefined : { marginInlineStart: (level - 1) * 14 }}
          className={`text-start ${level === 0 ? "" : "border-s-2 border-rule ps-3 text-soft"} ${isDrawn ? DRAWN : ""}`}
        >
          {pieces.map(({ text, href, key: piece }) =>
            href === null ? (
              <Broken key={piece} text={text} />
            ) : mayDecide && href.toLowerCase().startsWith("mailto:") ? (
              <Link
                key={piece}
                to={`/${tray.slug}/write?${new URLSearchParams({ mailto: href })}`}
                className="text-act underline underline-offset-2"
              >
                <Broken text={text} />
              </Link>
            ) : (
              <a
                key={piece}
                href={href}
                target="_blank"
                rel="noopener noreferrer nofollow"
                className="text-act underline underline-offset-2"
              >
                <Broken text={text} />
              </a>
            ),
          )}
        </p>
      ))}
    </div>
  );
}

// Characters of one width, none of them moved to another line: a wide drawing scrolls by itself.
const DRAWN = "overflow-x-auto whitespace-pre font-mono text-[13px] leading-[19px]";

// Far more than a line has: what is only long is broken by the line, as everywhere.
const MOST_UNBROKEN = 200;

/** A text with places to break in words that have no end; what is copied of it is the text. */
function Broken({ text }: { text: string }) {
  const pieces = brokenRuns(text, MOST_UNBROKEN);
  if (pieces.length === 1) return text;
  return pieces.map((piece, at) => (
    // biome-ignore lint/suspicious/noArrayIndexKey: pieces of one text, which never change places
    <Fragment key={at}>
      {at > 0 && <wbr />}
      {piece}
    </Fragment>
  ));
}
