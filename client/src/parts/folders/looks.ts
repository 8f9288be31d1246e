/** How a tree of folders looks: a line a folder, what is chosen told by an edge and not by a tint alone. */
export const folders = {
  ".folders .MuiTreeItem-content": {
    borderRadius: 0,
    minHeight: 32,
    paddingBlock: 0,
    gap: 4,
    borderBottom: "1px solid var(--mui-palette-divider)",
    borderInlineStart: "3px solid transparent",
    backgroundColor: "transparent",
  },
  ".folders .MuiTreeItem-content[data-selected], .folders .MuiTreeItem-content[data-selected][data-focused]":
    {
      borderInlineStartColor: "var(--mui-palette-primary-main)",
      backgroundColor: "var(--mui-palette-action-selected)",
    },
  ".folders .MuiTreeItem-content[data-focused]": { backgroundColor: "transparent" },
  // The ring is around the line itself, which lies over what it stands in.
  ".folders [role=treeitem]:focus-visible > .MuiTreeItem-content": {
    outline: "2px solid var(--mui-palette-primary-main)",
    outlineOffset: -2,
    "@media (forced-colors: active)": { outlineColor: "Highlight", outlineWidth: 4 },
  },
  ".folders .MuiTreeItem-content:hover": { backgroundColor: "var(--mui-palette-action-hover)" },
  ".folders .MuiTreeItem-content[data-over]": {
    outline: "2px dashed var(--mui-palette-primary-main)",
    outlineOffset: -2,
  },
  ".folders .MuiTreeItem-content[data-carried]": { opacity: 0.6 },
  ".folders .MuiTreeItem-iconContainer": {
    fontSize: 11,
    minWidth: 24,
    minHeight: 24,
    alignItems: "center",
    color: "var(--mui-palette-text-secondary)",
  },
  ".folders .MuiTreeItem-label": {
    display: "flex",
    alignItems: "baseline",
    gap: 6,
    fontSize: "0.9rem",
    lineHeight: 1.5,
  },
  ".folders .at-top .folder-name": { fontWeight: 600 },
  ".folder-name": {
    flex: 1,
    minWidth: 0,
    overflow: "hidden",
    textOverflow: "ellipsis",
    whiteSpace: "nowrap",
  },
  // The whole name, wherever one is.
  ".folders [role=treeitem]:focus-visible .folder-name": { whiteSpace: "normal", overflowWrap: "anywhere" },
  ".folder-count": { fontSize: "0.8rem", whiteSpace: "nowrap" },
  ".folder-rule": {
    fontSize: "0.78rem",
    color: "var(--mui-palette-text-secondary)",
    whiteSpace: "nowrap",
  },
  ".put-at-top": {
    marginTop: 8,
    padding: "8px 10px",
    border: "1px dashed var(--mui-palette-primary-main)",
    borderRadius: 6,
  },
};
