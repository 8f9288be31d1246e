/**
 * A comment with a phrase at its end, on the same line where the comment does not end in a new one.
 * @param first The student's first name: it stands where the phrase says {name}.
 */
export function withPhrase(comment: string, phrase: string, first: string): string {
  const said = phrase.replaceAll("{name}", () => first);
  return comment === "" || comment.endsWith("\n") ? comment + said : `${comment.trimEnd()} ${said}`;
}
