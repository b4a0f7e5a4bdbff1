import type { TextBlock } from "../server/text-blocks.server";

/** Plain text with its links, quotations indented by their depth. */
export function TextBlocks({ blocks, className }: { blocks: readonly TextBlock[]; className: string }) {
  return (
    <div className={`prose-own max-w-[68ch] space-y-2 ${className}`}>
      {blocks.map(({ level, pieces, key }) => (
        <p
          key={key}
          style={level === 0 ? undefined : { marginLeft: (level - 1) * 14 }}
          className={level === 0 ? "" : "border-l-2 border-rule pl-3 text-soft"}
        >
          {pieces.map(({ text, href, key: piece }) =>
            href === null ? (
              text
            ) : (
              <a
                key={piece}
                href={href}
                target="_blank"
                rel="noopener noreferrer nofollow"
                className="text-act underline underline-offset-2"
              >
                {text}
              </a>
            ),
          )}
        </p>
      ))}
    </div>
  );
}
