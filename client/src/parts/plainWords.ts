/** The words of formatted text in one line, without what formats them: for lists, where it is read as a whole elsewhere. */
export const plainWords = (text: string) =>
  text
    .replace(/!?\[([^\]]*)\]\([^)]*\)/g, "$1")
    .replace(/^\s{0,3}(#{1,6}|>|[-*+]|\d+[.)])\s+/gm, "")
    .replace(/(\*\*|__|`+)(.+?)\1/g, "$2")
    .replace(/(^|[\s(])[*_]([^\s*_][^*_]*)[*_](?=[\s).,;:!?]|$)/g, "$1$2")
    .replace(/\s+/g, " ")
    .trim();
