import Box from "@mui/material/Box";
import Markdown from "react-markdown";
import { webAddress } from "./webAddress";

/**
 * Formatted text as people wrote it: CommonMark, and nothing else. HTML in it is shown as nothing, addresses that are no web
 * addresses lead nowhere, and pictures of other sites are not fetched.
 */
export function Written({ text }: { text: string }) {
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
          // The desk has the heading of the first level already.
          h1: ({ children }) => <h3>{children}</h3>,
          h2: ({ children }) => <h4>{children}</h4>,
          h3: ({ children }) => <h5>{children}</h5>,
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
