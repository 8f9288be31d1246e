namespace SpringLoft.Core.Workspaces;

/// <summary>A message as far as being a question goes.</summary>
/// <param name="Answers">The message that it answers; null for one of its own.</param>
/// <param name="Day">Day of the school on which it was written.</param>
public sealed record TalkSaid(long Id, PersonId Author, bool Staff, long? Answers, LocalDate Day);

/// <summary>Which messages of students wait for somebody of staff. Source: docs/rules.md, "Talk".</summary>
public static class Questions
{
    /// <summary>
    /// What a student wrote as a message of its own waits until somebody of staff answers it, or writes a message of their own in the
    /// place; when its student writes on below it, it waits again. What others answer is no question. Where the place asks a question
    /// each school day, the first message of a student on a day is the answer to that.
    /// </summary>
    /// <param name="messages">Those of one place that are not hidden, in the order in which they were written.</param>
    /// <param name="asksDaily">Does the place ask a question each school day?</param>
    /// <returns>Those that wait, the one that has waited longest first.</returns>
    public static IReadOnlyList<TalkSaid> Waiting(IReadOnlyList<TalkSaid> messages, bool asksDaily)
    {
        var begins = new Dictionary<long, TalkSaid>();
        var answered = new HashSet<(PersonId, LocalDate)>();
        var waiting = new Dictionary<long, TalkSaid>();
        foreach (var m in messages)
        {
            if (m.Answers is { } above)
            {
                // What it answers may be older than these; then nobody knows whose question it was.
                if (!begins.TryGetValue(above, out var begin)) continue;
                begins[m.Id] = begin;
                if (m.Staff) waiting.Remove(begin.Id);
                else if (m.Author == begin.Author && !waiting.ContainsKey(begin.Id)) waiting[begin.Id] = m;
                continue;
            }
            begins[m.Id] = m;
            if (m.Staff) waiting.Clear();
            else if (!asksDaily || !answered.Add((m.Author, m.Day))) waiting[m.Id] = m;
        }
        return [.. waiting.Values.OrderBy(m => m.Id)];
    }
}
