import Box from "@mui/material/Box";
import { createElement, useMemo, type ReactNode } from "react";
import Markdown, { type Components } from "react-markdown";
import { webAddress } from "./webAddress";

// Whoever leads somewhere else shows words too: the two come in one piece.
export { webAddress };

// The desk and what stands on it have the headings of the first two ranks: the highest that was written is of the third.
function heads(text: string): Components {
  const written = [...text.matchAll(/^ {0,3}(#{1,6})\s/gm)].map((m) => m[1]!.length);
  const highest = Math.min(6, ...written);
  const head = (n: number) =>
    function Head({ children }: { children?: ReactNode }) {
      return createElement(`h${Math.min(6, Math.max(3, 3 + n - highest))}`, null, children);
    };
  return { h1: head(1), h2: head(2), h3: head(3), h4: head(4), h5: head(5), h6: head(6) };
}

/**
 * Formatted text as people wrote it: CommonMark, and nothing else. HTML in it is shown as nothing, addresses that are no web
 * addresses lead nowhere, and pictures of other sites are not fetched. With `lines` a new line stays one.
 */
export function Written({ text, lines }: { text: string; lines?: boolean }) {
  const ranked = useMemo(() => heads(text), [text]);
  return (
    <Box
      sx={{
        overflowWrap: "anywhere",
        lineHeight: 1.6,
        maxWidth: 720,
        "& > :first-of-type": { mt: 0 },
        "& h3, & h4, & h5": { lineHeight: 1.3, mt: 2, mb: 0.5 },
        "& h3": { fontSize: "1.25rem" },
        "& h4": { fontSize: "1.1rem" },
        "& h5": { fontSize: "1rem" },
        "& p, & ul, & ol": { my: 1 },
        "& p": { whiteSpace: lines ? "pre-line" : "normal" },
        "& blockquote": { borderLeft: 3, borderColor: "divider", ml: 0, pl: 2, color: "text.secondary" },
        "& code": { bgcolor: "action.hover", px: 0.5 },
        "& pre": { overflowX: "auto", bgcolor: "action.hover", p: 1 },
      }}
    >
      <Markdown
        skipHtml
        disallowedElements={["img"]}
        urlTransform={webAddress}
        components={{
          ...ranked,
          a: ({ href, children }) =>
            href ? (
              <a href={href} target="_blank" rel="noreferrer noopener">
                {children}
              </a>
            ) : (
              <span>{children}</span>
            ),
        }}
      >
        {text}
      </Markdown>
    </Box>
  );
}
